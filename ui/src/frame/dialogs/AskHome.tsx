import "./given.css";
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { Button } from "react-bootstrap";
import { day } from "../../player/format";
import { get, post } from "../../wire/api";
import { readAgain, wasChanged } from "../../wire/changed";
import type { Home, HomeAnswer, HomesOfGroup } from "../../wire/contract";
import { failureText, rich, t, wordOf } from "../../language/text";

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
    mutationFn: ({ home, answer }: { home: Home; answer: string }) =>
      post<HomesOfGroup>(`/homes/${home.id}/answer`, {
        answer,
        revision: home.revision,
      } satisfies HomeAnswer),
    onError: readAgain(queries, key),
    onSuccess: (fresh) => queries.setQueryData(key, fresh),
  });
  if (!homes.data) return null;
  const { ask, answers } = homes.data;
  const said = answer.variables; // the last one can be taken back
  const answered = said && homes.data.homes.find((h) => h.id === said.home.id && h.answer !== "");
  const both = wasChanged(answer.error) && answered; // another screen answered first
  const back = !answer.isError && said?.answer !== "" && answered;
  if (ask.length === 0 && !back && !both) return null;
  return (
    <section className="askhome" aria-label={t("frame.given-to-do-at-home")}>
      {homes.data.homes
        .filter((home) => ask.includes(home.id))
        .map((home) => (
          <p key={home.id}>
            {rich("frame.given-how", {
              given: day(home.given_ms),
              strong: <strong>{home.name}</strong>,
              amount: home.amount,
            })}{" "}
            {answers.map((word) => (
              <Button
                key={word}
                size="sm"
                variant="outline-primary"
                className="me-1"
                disabled={answer.isPending}
                onClick={() => answer.mutate({ home, answer: word })}
              >
                {wordOf("home-answer", word)}
              </Button>
            ))}
          </p>
        ))}
      {back && (
        <p role="status">
          {t("frame.at-home", { name: back.name, value: wordOf("home-answer", back.answer) })}{" "}
          <Button size="sm" variant="link" onClick={() => answer.mutate({ home: back, answer: "" })}>
            {t("frame.undo")}
          </Button>
        </p>
      )}
      {both && said && (
        <p role="alert">
          {rich("frame.at-home-another-screen-answered-meanwhile", {
            name: both.name,
            strong: <strong>{wordOf("home-answer", both.answer)}</strong>,
            strong2: <strong>{said.answer ? wordOf("home-answer", said.answer) : t("frame.nothing")}</strong>,
          })}{" "}
          <Button size="sm" variant="outline-secondary" className="me-1" onClick={answer.reset}>
            {t("frame.keep", { value: wordOf("home-answer", both.answer) })}
          </Button>
          <Button
            size="sm"
            variant="outline-primary"
            onClick={() => answer.mutate({ home: both, answer: said.answer })}
          >
            {said.answer === ""
              ? t("frame.take-it-back")
              : t("frame.change-it", { value: wordOf("home-answer", said.answer) })}
          </Button>
        </p>
      )}
      {answer.isError && !both && <p className="text-danger">{failureText(answer.error)}</p>}
    </section>
  );
}
