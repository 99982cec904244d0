import { useMemo } from "react";
import { useParams } from "react-router";
import { ErrorAlert } from "../frame/shell/ErrorAlert";
import { Loading } from "../frame/shell/Loading";
import { Shell } from "../frame/shell/Shell";
import { useScore } from "../player/useScore";
import { deskOf } from "./desk";
import { Leading } from "./Leading";
import { t } from "../language/text";

/** LeadView leads a class: it follows its score, and sends what is pressed. */
export function LeadView() {
  const id = Number(useParams().id);
  const { score, error, retry, connected, take } = useScore(id);
  const desk = useMemo(() => deskOf(id, take), [id, take]);
  if (score) return <Leading key={id} score={score} connected={connected} take={take} desk={desk} live />;
  return (
    <Shell view="lead-wait">
      {error ? (
        <ErrorAlert error={error} retry={() => void retry()} />
      ) : (
        <Loading what={t("lead.joining-the-class")} />
      )}
    </Shell>
  );
}
