import { useQuery } from "@tanstack/react-query";
import { Button, Form } from "react-bootstrap";
import { number } from "../player/format";
import type { ScorePassage } from "../wire/contract";
import { type GoOn, longests } from "./earChoice";
import { Pad } from "./Pad";
import { microphonesQuery } from "./queries";
import type { Ear } from "./useEar";
import { AcceptKey, printed } from "./KeyName";
import { useAccepts, useLetter, usePadKeys } from "./usePadKeys";
import { t, text } from "../language/text";

type Props = { ear: Ear; passage: ScorePassage | undefined; onClose: () => void };

/** troubles is why there is no microphone, in words. */
const troubles = {
  insecure: "microphone.insecure",
  unsupported: "microphone.unsupported",
  none: "microphone.none",
  denied: "microphone.denied",
  busy: "microphone.busy",
  lost: "microphone.lost",
  elsewhere: "microphone.elsewhere",
  "try-out": "microphone.try-out",
} as const;

/** EarPad turns listening on and off, tells what is heard, and takes what is proposed with one key. */
export function EarPad({ ear, passage, onClose }: Props) {
  const { hearing, proposal } = ear;
  const on = hearing.is === "on";
  const accepts = useAccepts();
  const take = () => {
    ear.take();
    onClose();
  };
  const notNow = () => {
    ear.notNow();
    onClose();
  };
  usePadKeys((key) => {
    if (proposal && accepts(key)) take();
    else if (proposal && key === "1") notNow();
    else if (!on && hearing.is !== "asking" && accepts(key)) void ear.begin();
    else if ((on || hearing.is === "trouble") && key === "2") ear.finish();
    else return false;
    return true;
  });
  return (
    <Pad title={t("lead.listen-to-the-room")} onClose={onClose}>
      {on ? <Hears ear={ear} passage={passage} /> : <Before ear={ear} />}
      {proposal && (
        <footer>
          <Button variant="outline-secondary" size="lg" onClick={notNow}>
            <kbd>1</kbd> {t("lead.not-now")}
          </Button>
          <Button size="lg" onClick={take}>
            <AcceptKey /> {t("lead.do-it")}
          </Button>
        </footer>
      )}
      {on && <Choices ear={ear} passage={passage} />}
    </Pad>
  );
}

/** Before is what is to be known before the microphone is opened, and why it could not be. */
function Before({ ear }: { ear: Ear }) {
  const { hearing } = ear;
  if (hearing.is === "asking") return <p role="status">{t("lead.your-browser-asks-for-the-microphone")}</p>;
  if (hearing.is === "trouble")
    return (
      <>
        <p className="mb-0" role="alert">
          {t(troubles[hearing.trouble])}
        </p>
        <footer>
          <Button variant="outline-secondary" onClick={ear.finish}>
            <kbd>2</kbd> {t("lead.do-without-it")}
          </Button>
          <Button onClick={() => void ear.begin()}>
            <AcceptKey /> {t("frame.try-again")}
          </Button>
        </footer>
      </>
    );
  return (
    <>
      <p className="mb-0">{t("lead.what-listening-does")}</p>
      <p className="mb-0">{t("lead.nothing-is-recorded")}</p>
      <footer>
        <Button size="lg" onClick={() => void ear.begin()}>
          <AcceptKey /> {t("lead.begin-to-listen")}
        </Button>
      </footer>
    </>
  );
}

/** Hears is what is heard now, or that it cannot be told. */
function Hears({ ear, passage }: { ear: Ear; passage: ScorePassage | undefined }) {
  return (
    <p className="proposal" role="status">
      {ear.proposal ? text(ear.proposal.say) : heardText(ear, passage)}
    </p>
  );
}

/** heardText is what is heard in a passage, in a sentence. */
function heardText(ear: Ear, passage: ScorePassage | undefined): string {
  const { shown } = ear;
  if (!passage || ear.hears === null) return t("lead.nothing-to-listen-for");
  if (shown.dead) return t("lead.the-microphone-is-silent");
  if (ear.deaf) return t("lead.this-device-plays-sounds-itself");
  if (ear.hears === "stroke") {
    if (!ear.stroking) return t("lead.no-strokes-are-led-now");
    return shown.strokes === null
      ? t(shown.early ? "lead.it-takes-some-strokes" : "lead.i-cannot-hear-the-strokes")
      : t("lead.strokes-heard", {
          heard: shown.strokes,
          beat: number(passage.tempo),
          together: shown.together,
        });
  }
  if (shown.sounds !== null) return t("lead.the-room-sounds", { seconds: shown.sounds, still: shown.still });
  if (shown.last === "unsure") return t("lead.i-cannot-hear-when-it-ended");
  return shown.last === null
    ? t("lead.i-hear-nobody-yet")
    : t("lead.silent-it-lasted", { seconds: number(Math.round(shown.last / 100) / 10) });
}

/** Choices is what can be chosen while it listens: what goes on by itself, the microphone, and headphones. */
function Choices({ ear, passage }: { ear: Ear; passage: ScorePassage | undefined }) {
  const { hearing } = ear;
  if (hearing.is !== "on") return null;
  return (
    <>
      {passage && ear.hears !== null && ear.hears !== "stroke" && <GoesOn ear={ear} passage={passage} />}
      {ear.simulated ? (
        <p className="mb-0">{t("lead.it-hears-the-simulated-room")}</p>
      ) : (
        <Device ear={ear} hearing={hearing} />
      )}
      <footer>
        <Button variant="outline-secondary" onClick={ear.finish}>
          <kbd>2</kbd> {t("lead.stop-listening")}
        </Button>
      </footer>
    </>
  );
}

/** Device is which microphone hears, and what can be chosen of it. */
function Device({ ear, hearing }: { ear: Ear; hearing: Ear["hearing"] & { is: "on" } }) {
  const { choice } = ear;
  const { data: microphones = [] } = useQuery(microphonesQuery);
  const slow = hearing.late > 100 || /bluetooth|hands-?free/i.test(hearing.name);
  return (
    <>
      <Form.Check
        id="ear-headphones"
        label={t("lead.i-hear-this-device-in-headphones")}
        checked={choice.headphones}
        onChange={(e) => ear.change({ headphones: e.target.checked })}
      />
      <p className="mb-0">
        {hearing.changed
          ? t("lead.the-microphone-changed-to", { name: hearing.name })
          : t("lead.hears-with", { name: hearing.name })}
        {slow && ` ${t("lead.it-hears-late")}`}
      </p>
      {microphones.length > 1 && (
        <Form.Select
          aria-label={t("lead.microphone")}
          value={choice.device}
          onChange={(e) => {
            ear.change({ device: e.target.value });
            void ear.begin(e.target.value);
          }}
        >
          <option value="">{t("lead.the-usual-microphone")}</option>
          {microphones.map((one) => (
            <option key={one.deviceId} value={one.deviceId}>
              {one.label}
            </option>
          ))}
        </Form.Select>
      )}
    </>
  );
}

/** GoesOn lets the passage go on by itself when the room has fallen silent, where the teacher leads it by hand. */
function GoesOn({ ear, passage }: { ear: Ear; passage: ScorePassage }) {
  const { wants } = ear;
  const byHand = useLetter("hand");
  const want = (part: Partial<GoOn>) => ear.wantGoOn({ ...wants, ...part });
  if (!passage.in_force.by_hand.includes(ear.hears!))
    return (
      <p className="mb-0">
        {t("lead.by-hand-it-can-go-on", { key: printed(byHand), shown: byHand === "" ? "no" : "yes" })}
      </p>
    );
  return (
    <>
      <Form.Check
        type="switch"
        id="ear-goes-on"
        label={t("lead.go-on-when-it-is-silent")}
        checked={wants.on}
        onChange={(e) => want({ on: e.target.checked })}
      />
      {wants.on && (
        <Form.Group className="d-flex align-items-center gap-2">
          <Form.Label htmlFor="ear-longest" className="mb-0">
            {t("lead.at-the-latest-after")}
          </Form.Label>
          <Form.Select
            id="ear-longest"
            className="w-auto"
            value={wants.longest}
            onChange={(e) => want({ longest: Number(e.target.value) })}
          >
            {longests.map((seconds) => (
              <option key={seconds} value={seconds}>
                {seconds === 0 ? t("lead.no-longest") : t("lead.seconds", { seconds })}
              </option>
            ))}
          </Form.Select>
        </Form.Group>
      )}
    </>
  );
}
