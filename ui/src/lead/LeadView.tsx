import { useEffect, useMemo } from "react";
import { useNavigate, useParams } from "react-router";
import { useLeader } from "../apart/useLeader";
import { ErrorAlert } from "../frame/shell/ErrorAlert";
import { Loading } from "../frame/shell/Loading";
import { Shell } from "../frame/shell/Shell";
import { Failed, unanswered } from "../wire/api";
import { useScore } from "../player/useScore";
import { deskOf, ownDesk } from "./desk";
import { Leading } from "./Leading";
import { t } from "../language/text";

const notKept = new Failed({ say: { id: "apart.not-kept" } }, 404);

/**
 * LeadView leads a class: it follows its score, and sends what is pressed. Where the program does not answer, it leads what this
 * device keeps of it, or a class that was begun here.
 */
export function LeadView() {
  const id = Number(useParams().id);
  const navigate = useNavigate();
  const { score, error, retry, connected, take } = useScore(id);
  const { leader, alone } = useLeader(id, score, connected, take, id < 0 || unanswered(error));
  const number = alone?.number ?? id;
  useEffect(() => {
    if (number !== id) void navigate(`/lead/${number}`, { replace: true });
  }, [number, id, navigate]);
  const ready = alone?.ready === true;
  const desk = useMemo(
    () => (leader && ready ? ownDesk(id, leader) : deskOf(id, take)),
    [id, take, leader, ready],
  );
  const shown = alone?.score ?? score;
  const wrong = id < 0 && alone ? notKept : error;
  if (shown)
    return (
      <Leading
        key={leader?.opened ?? id}
        score={shown}
        connected={connected}
        desk={desk}
        apart={leader && alone ? { leader, alone } : undefined}
        live
      />
    );
  return (
    <Shell view="lead-wait">
      {wrong && !alone?.opening ? (
        <ErrorAlert error={wrong} retry={id > 0 ? () => void retry() : undefined} />
      ) : (
        <Loading what={t("lead.joining-the-class")} />
      )}
    </Shell>
  );
}
