import { Button, Form } from "react-bootstrap";
import { t } from "../language/text";
import type { Choice } from "../player/sound/choice";
import type { Sign } from "../player/sound/signs";
import type { Sound } from "../player/sound/useSound";

/** The signs, in the order in which they are learned. */
const learned = (): [Sign, string][] => [
  ["taken", t("lead.sign-done")],
  ["refused", t("lead.sign-refused")],
  ["last", t("lead.sign-last")],
  ["half", t("lead.sign-half")],
  ["minute", t("lead.sign-minute")],
  ["half-minute", t("lead.sign-half-minute")],
  ["waiting", t("lead.sign-waiting")],
  ["slot", t("lead.sign-slot")],
];

/** SignSettings is what only the teacher hears: signs, in one ear if wanted, and what a key did. */
export function SignSettings({ sound }: { sound: Sound }) {
  const { choice, change, give } = sound;
  return (
    <>
      <Form.Check
        id="signs"
        label={t("lead.quiet-signs")}
        checked={choice.signs}
        onChange={(e) => change({ signs: e.target.checked })}
      />
      <div className="d-flex flex-wrap gap-1 mt-1 mb-1" role="group" aria-label={t("lead.hear-a-sign")}>
        {learned().map(([which, name]) => (
          <Button
            key={which}
            size="sm"
            variant="outline-secondary"
            disabled={!choice.on || !choice.signs}
            onClick={() => give(which)}
          >
            {name}
          </Button>
        ))}
      </div>
      <Form.Group controlId="ear" className="mb-2">
        <Form.Label>{t("lead.heard-in")}</Form.Label>
        <Form.Select
          size="sm"
          value={choice.ear}
          onChange={(e) => change({ ear: e.target.value as Choice["ear"] })}
        >
          <option value="both">{t("lead.both-ears")}</option>
          <option value="left">{t("lead.the-left-ear")}</option>
          <option value="right">{t("lead.the-right-ear")}</option>
        </Form.Select>
      </Form.Group>
      <Form.Check
        id="answers"
        label={t("lead.say-softly-what-a-key-did")}
        checked={choice.answers}
        onChange={(e) => change({ answers: e.target.checked })}
      />
    </>
  );
}
