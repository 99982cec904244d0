import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { Button, Form } from "react-bootstrap";
import { useClock } from "../player/clock";
import type { Adjust } from "../wire/contract";
import { number } from "../player/format";
import type { Asks } from "./desk";
import { Pad } from "./Pad";
import { AcceptKey } from "./KeyName";
import { useAccepts, usePadKeys } from "./usePadKeys";
import { t } from "../language/text";

type Props = { asks: Asks; onAdjust: (press: Omit<Adjust, "key">) => void; onClose: () => void };

/** TapPad: tap the room's counts or its inhales, see the tempo and its spread, take it with one key. */
export function TapPad({ asks, onAdjust, onClose }: Props) {
  const clock = useClock();
  const [taps, setTaps] = useState<number[]>([]);
  const [breaths, setBreaths] = useState(false);
  const { data: tapped = null } = useQuery({
    queryKey: ["tapped", taps, breaths],
    queryFn: ({ signal }) => asks.tapped({ at_ms: taps, breaths }, signal),
    enabled: taps.length >= 2,
    placeholderData: keepPreviousData,
    retry: false, // the next tap asks again
    gcTime: 0,
  });

  const tap = () => setTaps((old) => [...old.slice(-99), Math.round(clock.now())]);
  const ready = tapped !== null && tapped.tempo > 0;
  const accept = () => {
    if (ready) onAdjust({ do: "tempo", to: tapped.tempo });
    onClose();
  };
  const accepts = useAccepts();
  usePadKeys((key) => {
    if (key === "2") tap();
    else if (key === "3") setBreaths(!breaths);
    else if (ready && accepts(key)) accept();
    else return false;
    return true;
  });
  return (
    <Pad title={t("lead.tap-the-room")} onClose={onClose}>
      <Button className="tap" variant="outline-secondary" onPointerDown={tap}>
        <kbd>2</kbd> {t("lead.tap-at-each", { breaths })}
      </Button>
      <Form.Check
        className="mt-2"
        id="tap-breaths"
        label={t("lead.i-tap-inhales-not-counts")}
        checked={breaths}
        onChange={(e) => setBreaths(e.target.checked)}
      />
      <p className="proposal" role="status">
        {tapped
          ? t("lead.one-in-s-s", {
              tempo:
                tapped.tempo > 0
                  ? t("lead.tempo", { tempo: number(tapped.tempo) })
                  : t("lead.nothing-is-counted-here"),
              breaths,
              interval: number(tapped.interval_ms / 1000),
              spread: number(tapped.spread_ms / 1000),
            })
          : t("lead.two-taps-or-more")}
        {tapped && tapped.aside > 0 && <small> {t("lead.set-aside", { aside: tapped.aside })}</small>}
      </p>
      {!(tapped && tapped.tempo === 0) && (
        <footer>
          <Button size="lg" disabled={!ready} onClick={accept}>
            <AcceptKey /> {ready ? t("lead.lead-at", { tempo: number(tapped.tempo) }) : t("lead.take-it")}
          </Button>
        </footer>
      )}
    </Pad>
  );
}
