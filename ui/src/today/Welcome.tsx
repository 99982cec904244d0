import playFill from "bootstrap-icons/icons/play-fill.svg?raw";
import { useMutation } from "@tanstack/react-query";
import type { ReactNode } from "react";
import { Button, Card } from "react-bootstrap";
import { Link, useNavigate } from "react-router";
import { ErrorAlert } from "../frame/shell/ErrorAlert";
import { Icon } from "../frame/shell/Icon";
import { post } from "../wire/api";
import type { Score } from "../wire/contract";

/** Welcome is an empty start: a class to try at once, and the ways to begin one's own. */
export function Welcome({ newPlan }: { newPlan: ReactNode }) {
  const navigate = useNavigate();
  const sample = useMutation({
    mutationFn: () => post<Score>("/sample", {}),
    onSuccess: (score) => void navigate(`/lead/${score.class_id}`),
  });
  return (
    <Card className="next mb-4">
      <Card.Body>
        <h1>Welcome</h1>
        <p>Your next class appears here, with one button to lead it. Begin in one of three ways:</p>
        <ol className="begin">
          <li>
            <Button size="lg" autoFocus disabled={sample.isPending} onClick={() => sample.mutate()}>
              <Icon of={playFill} /> Lead a sample class
            </Button>
            <p>
              Two minutes, with the real keys and a real room page. It is not saved.
              {sample.isPending && " It begins …"}
            </p>
            {sample.isError && <ErrorAlert error={sample.error} />}
          </li>
          <li>
            {newPlan}
            <p>Plan a class by typing what you think: “even breath, then three rounds of square”.</p>
          </li>
          <li>
            <Link className="btn btn-outline-primary" to="/groups">
              Begin with a group
            </Link>
            <p>
              Say who comes, how many, and what to take care of. Its plans start from these answers, and its
              record grows with each class.
            </p>
          </li>
        </ol>
      </Card.Body>
    </Card>
  );
}
