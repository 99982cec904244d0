import type { Away } from "./desk";
import { gapQuery } from "./queries";
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { Button } from "react-bootstrap";
import type { Score } from "../wire/contract";
import { ErrorAlert } from "../frame/shell/ErrorAlert";
import { newKey } from "../wire/key";
import { classTime } from "../player/usePlace";
import { useClock } from "../player/clock";
import { clock } from "../player/format";
import { Pad } from "./Pad";
import { AcceptKey } from "./KeyName";
import { useAccepts, usePadKeys } from "./usePadKeys";
import { t, text } from "../language/text";

type Props = { score: Score; from: number; away: Away; onClose: () => void };

/** GapCard asks after a stretch in which this screen did not show the count: go on at the clock, or take it again. */
export function GapCard({ score, from, away: desk, onClose }: Props) {
  const [key] = useState(newKey);
  const time = useClock();
  const [away] = useState(() => classTime(score, time) - from);
  const [error, setError] = useState<Error | null>(null);
  const gap = useQuery(gapQuery(score.class_id, from, desk));
  const again = () => {
    desk.again(from, key).then(onClose, setError);
  };
  const accepts = useAccepts();
  usePadKeys((key) => {
    if (accepts(key)) onClose();
    else if ((key === "r" || key === "PageUp") && gap.data?.again) again();
    else return false;
    return true;
  });
  return (
    <Pad title={t("lead.this-screen-was-away", { away: clock(away) })} onClose={onClose}>
      {(error ?? gap.error) && <ErrorAlert error={(error ?? gap.error)!} />}
      {gap.data && (
        <dl className="gap">
          <dt>{t("lead.it-was")}</dt>
          <dd>{text(gap.data.away)}</dd>
          <dt>{t("lead.now-it")}</dt>
          <dd>{text(gap.data.now)}</dd>
        </dl>
      )}
      <footer>
        <Button size="lg" onClick={onClose}>
          <AcceptKey /> {t("lead.continue-from-now")}
        </Button>
        {gap.data?.again && (
          <Button size="lg" variant="outline-primary" onClick={again}>
            <kbd>R</kbd> {t("lead.repeat-what-was-missed")}
          </Button>
        )}
      </footer>
      {gap.data?.again && <p className="text-secondary mb-0">{t("lead.if-you-repeat-it-the-time")}</p>}
    </Pad>
  );
}
