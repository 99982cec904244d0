import "./given.css";
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { Button } from "react-bootstrap";
import { day } from "../player/format";
import { get, post } from "../wire/api";
import type { HomeAnswer, HomesOfGroup } from "../wire/contract";

/** AskHome asks, when a group comes again, how it was with what it was given to do at home. */
export function AskHome({ group }: { group: number }) {
  const queries = useQueryClient();
  const key = ["homes", group];
  const homes = useQuery({
    queryKey: key,
    queryFn: () => get<HomesOfGroup>(`/groups/${group}/homes`),
    enabled: group !== 0,
  });
  const answer = useMutation({
    mutationFn: ({ id, answer }: { id: number } & HomeAnswer) =>
      post<HomesOfGroup>(`/homes/${id}/answer`, { answer } satisfies HomeAnswer),
    onSuccess: (fresh) => queries.setQueryData(key, fresh),
  });
  if (!homes.data) return null;
  const { ask, answers } = homes.data;
  const said = answer.variables; // the last one can be taken back
  const back =
    said && said.answer !== "" && homes.data.homes.find((h) => h.id === said.id && h.answer !== "");
  if (ask.length === 0 && !back) return null;
  return (
    <section className="askhome" aria-label="Given to do at home">
      {homes.data.homes
        .filter((home) => ask.includes(home.id))
        .map((home) => (
          <p key={home.id}>
            Given {day(home.given_ms)}: <strong>{home.name}</strong>, {home.amount}. How was it?{" "}
            {answers.map((word) => (
              <Button
                key={word}
                size="sm"
                variant="outline-primary"
                className="me-1"
                disabled={answer.isPending}
                onClick={() => answer.mutate({ id: home.id, answer: word })}
              >
                {word}
              </Button>
            ))}
          </p>
        ))}
      {back && (
        <p role="status">
          {back.name} at home: {back.answer}.{" "}
          <Button size="sm" variant="link" onClick={() => answer.mutate({ id: back.id, answer: "" })}>
            Undo
          </Button>
        </p>
      )}
      {answer.isError && <p className="text-danger">{answer.error.message}</p>}
    </section>
  );
}
