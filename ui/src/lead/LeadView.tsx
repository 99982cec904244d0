import { useMemo } from "react";
import { useParams } from "react-router";
import { useLeader } from "../apart/useLeader";
import { ErrorAlert } from "../frame/shell/ErrorAlert";
import { Loading } from "../frame/shell/Loading";
import { Shell } from "../frame/shell/Shell";
import { useScore } from "../player/useScore";
import { deskOf, ownDesk } from "./desk";
import { Leading } from "./Leading";
import { t } from "../language/text";

/** LeadView leads a class: it follows its score, and sends what is pressed. */
export function LeadView() {
  const id = Number(useParams().id);
  const { score, error, retry, connected, take } = useScore(id);
  const { leader, alone } = useLeader(id, score, connected, take);
  const ready = alone?.ready === true;
  const desk = useMemo(
    () => (leader && ready ? ownDesk(id, leader) : deskOf(id, take)),
    [id, take, leader, ready],
  );
  if (score)
    return (
      <Leading
        key={id}
        score={alone?.score ?? score}
        connected={connected}
        desk={desk}
        apart={leader && alone ? { leader, alone } : undefined}
        live
      />
    );
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
