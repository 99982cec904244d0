import { Button, Form } from "react-bootstrap";
import type { Choice } from "./choice";
import type { Sign } from "./signs";
import type { Sound } from "./useSound";

/** The signs, in the order in which they are learned. */
const learned: [Sign, string][] = [
  ["taken", "done"],
  ["refused", "refused"],
  ["last", "last round"],
  ["half", "half way"],
  ["minute", "one minute"],
  ["half-minute", "thirty seconds"],
  ["waiting", "waiting for you"],
  ["slot", "two minutes to the slot's end"],
];

/** SignSettings is what only the teacher hears: signs, in one ear if wanted, and what a key did. */
export function SignSettings({ sound }: { sound: Sound }) {
  const { choice, change, give } = sound;
  return (
    <>
      <Form.Check
        id="signs"
        label="Quiet signs for you: what a key did, the calls, what waits, the slot's end"
        checked={choice.signs}
        onChange={(e) => change({ signs: e.target.checked })}
      />
      <div className="d-flex flex-wrap gap-1 mt-1 mb-1" role="group" aria-label="Hear a sign">
        {learned.map(([which, name]) => (
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
        <Form.Label>Heard in</Form.Label>
        <Form.Select
          size="sm"
          value={choice.ear}
          onChange={(e) => change({ ear: e.target.value as Choice["ear"] })}
        >
          <option value="both">both ears</option>
          <option value="left">the left ear</option>
          <option value="right">the right ear</option>
        </Form.Select>
      </Form.Group>
      <Form.Check
        id="answers"
        label="Say softly what a key did"
        checked={choice.answers}
        onChange={(e) => change({ answers: e.target.checked })}
      />
    </>
  );
}
