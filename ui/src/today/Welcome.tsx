import playFill from "bootstrap-icons/icons/play-fill.svg?raw";
import { useMutation } from "@tanstack/react-query";
import type { ReactNode } from "react";
import { Button, Card } from "react-bootstrap";
import { Link, useNavigate } from "react-router";
import { ErrorAlert } from "../frame/shell/ErrorAlert";
import { Icon } from "../frame/shell/Icon";
import { post } from "../wire/api";
import type { Score } from "../wire/contract";
import { t } from "../language/text";

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
        <h1>{t("today.welcome")}</h1>
        <p>{t("today.your-next-class-appears-here")}</p>
        <ol className="begin">
          <li>
            <Button size="lg" autoFocus disabled={sample.isPending} onClick={() => sample.mutate()}>
              <Icon of={playFill} /> {t("today.lead-a-sample-class")}
            </Button>
            <p>
              {t("today.two-minutes-with-the-real-keys")}
              {sample.isPending && t("today.it-begins")}
            </p>
            {sample.isError && <ErrorAlert error={sample.error} />}
          </li>
          <li>
            {newPlan}
            <p>{t("today.plan-a-class-by-typing")}</p>
          </li>
          <li>
            <Link className="btn btn-outline-primary" to="/groups">
              {t("today.begin-with-a-group")}
            </Link>
            <p>{t("today.say-who-comes-how-many")}</p>
          </li>
        </ol>
      </Card.Body>
    </Card>
  );
}
