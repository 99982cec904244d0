import { useQueryClient } from "@tanstack/react-query";
import { useEffect, useSyncExternalStore } from "react";
import { day, timeOfDay } from "../../player/format";
import { synchronize } from "../../player/clock";
import { followHeld, noteHeld, shownFrom } from "../../wire/held";
import { Message } from "./Message";
import { t } from "../../language/text";

const again = 3000; // ms

/** HeldNotice says that the program does not answer and that what is shown was held on this device; views ask anew when it answers. */
export function HeldNotice() {
  const queries = useQueryClient();
  const since = useSyncExternalStore(followHeld, shownFrom);
  const held = since !== null;
  useEffect(() => followHeld(() => void (shownFrom() === null && queries.invalidateQueries())), [queries]);
  useEffect(() => {
    if (!held) return;
    const ask = () =>
      void synchronize().then(
        () => noteHeld(null),
        () => undefined,
      );
    const timer = setInterval(ask, again);
    return () => clearInterval(timer);
  }, [held]);
  if (since === null) return null;
  return (
    <Message variant="light" className="held">
      {t("frame.held-here", { when: `${day(since)} ${timeOfDay(since)}` })}
    </Message>
  );
}
