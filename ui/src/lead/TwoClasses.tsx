import { Button } from "react-bootstrap";
import type { Alone, Leader } from "../apart/leader";
import { clock } from "../player/format";
import type { Answer } from "../wire/contract";
import { t, text } from "../language/text";
import { Pad } from "./Pad";
import { usePadKeys } from "./usePadKeys";

type Props = { asked: NonNullable<Alone["asked"]>; leader: Leader; onClose: () => void };

/** TwoClasses asks which class goes on, where it was adjusted on this screen and on others while they did not meet. */
export function TwoClasses({ asked, leader, onClose }: Props) {
  const choose = (which: "screen" | "program") => {
    void leader.choose(which);
    onClose();
  };
  usePadKeys((key) => {
    if (key === "1") choose("screen");
    else if (key === "2") choose("program");
    else return false;
    return true;
  });
  return (
    <Pad title={t("lead.two-classes")} onClose={onClose}>
      <p>{t("lead.here-and-there", { here: listed(asked.here), there: listed(asked.there) })}</p>
      <footer>
        <Button size="lg" onClick={() => choose("screen")}>
          <kbd>1</kbd> {t("lead.this-screen-goes-on")}
        </Button>
        <Button size="lg" variant="outline-primary" onClick={() => choose("program")}>
          <kbd>2</kbd> {t("lead.the-other-goes-on")}
        </Button>
      </footer>
      <p className="text-secondary mb-0">{t("lead.the-rest-is-recorded")}</p>
    </Pad>
  );
}

function listed(answers: Answer[]): string {
  return answers
    .map((a) =>
      t("lead.done-at", { at: clock(a.at_ms), did: text(a.did) + (a.origin ? ` (${a.origin})` : "") }),
    )
    .join("; ");
}
