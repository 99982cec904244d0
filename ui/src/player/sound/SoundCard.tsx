import type { ReactNode } from "react";
import { Button, Form, Modal } from "react-bootstrap";
import type { Sound } from "./useSound";
import type { Choice } from "./choice";
import type { Speaker } from "../../wire/contract";
import { canVibrate, useVoices } from "./useSpoken";

/** SoundCard is the sound of a screen, in a card before it. */
export function SoundCard({ sound, onClose }: { sound: Sound; onClose: () => void }) {
  return (
    <Modal show centered onHide={onClose} aria-labelledby="sound">
      <Modal.Header closeButton>
        <Modal.Title id="sound">Sound of this screen</Modal.Title>
      </Modal.Header>
      <Modal.Body>
        <SoundSettings sound={sound} />
      </Modal.Body>
    </Modal>
  );
}

/** SoundSettings sets how this screen sounds, and checks left and right before class. children are what is the lead screen's own. */
export function SoundSettings({ sound, children }: { sound: Sound; children?: ReactNode }) {
  const voices = useVoices();
  const { choice, change, check, speaker } = sound;
  const speaks = voices.length > 0 || speaker !== null;
  return (
    <>
      <Form.Check
        type="switch"
        id="sound-on"
        label="Sound"
        checked={choice.on}
        onChange={(e) => change({ on: e.target.checked })}
      />
      <Form.Label htmlFor="volume" className="mt-3">
        Volume
      </Form.Label>
      <Form.Range
        id="volume"
        min={0}
        max={1}
        step={0.05}
        value={choice.volume}
        onChange={(e) => change({ volume: Number(e.target.value) })}
      />
      <Form.Check
        id="tones"
        label="Tones: rising for the inhale, falling for the exhale, one pitch for a hold, lower when empty"
        checked={choice.tones}
        onChange={(e) => change({ tones: e.target.checked })}
      />
      <Form.Check
        id="ticks"
        label="A tick at each count, two before a change of nostril"
        checked={choice.ticks}
        onChange={(e) => change({ ticks: e.target.checked })}
      />
      <Form.Check
        id="swap"
        label="Left and right swapped: the speakers face the class"
        checked={choice.swap}
        onChange={(e) => change({ swap: e.target.checked })}
      />
      <Form.Check
        id="mono"
        label="Mono"
        checked={choice.mono}
        onChange={(e) => change({ mono: e.target.checked })}
      />
      <Form.Check
        id="others"
        label="With a gentler lane, one voice for both: say when a breath of the others starts"
        checked={choice.others}
        onChange={(e) => change({ others: e.target.checked })}
      />
      {children}
      {canVibrate && (
        <Form.Check
          id="vibrate"
          label="Vibrate at each phase, on a device that can"
          checked={choice.vibrate}
          onChange={(e) => change({ vibrate: e.target.checked })}
        />
      )}
      <Form.Group controlId="voice" className="mt-2">
        <Form.Label>Spoken</Form.Label>
        <Form.Select
          value={speaks ? choice.voice : "off"}
          disabled={!speaks}
          onChange={(e) => change({ voice: e.target.value as Choice["voice"] })}
        >
          <option value="off">nothing</option>
          <option value="cues">calls, the hand and lines only</option>
          <option value="words">the words of each phase</option>
          <option value="counts">words and counts</option>
        </Form.Select>
        {!speaks && <Form.Text>This browser has no voice: the tones carry the pace.</Form.Text>}
      </Form.Group>
      {speaker && choice.voice !== "off" && (
        <Whose sound={sound} speaker={speaker} browser={voices.length > 0} />
      )}
      <div className="d-flex gap-2 mt-3">
        <Button variant="outline-secondary" disabled={!choice.on} onClick={() => check(-1)}>
          Test left
        </Button>
        <Button variant="outline-secondary" disabled={!choice.on} onClick={() => check(1)}>
          Test right
        </Button>
      </div>
      <p className="text-secondary mt-3 mb-0">At own pace only the call back is heard.</p>
    </>
  );
}

/** Whose chooses between a recorded voice and the browser's, and says beforehand what the former does not say. */
function Whose({ sound, speaker, browser }: { sound: Sound; speaker: Speaker; browser: boolean }) {
  const { choice, change } = sound;
  const { missing, name } = speaker;
  const instead = browser && choice.whose === "own" ? "the browser's voice says it" : "only tones are heard";
  return (
    <Form.Group controlId="whose" className="mt-2">
      <Form.Label>Whose voice</Form.Label>
      <Form.Select
        value={choice.whose}
        onChange={(e) => change({ whose: e.target.value as Choice["whose"] })}
      >
        <option value="own">
          {name}, and {browser ? "the browser's" : "tones"} for what is not recorded
        </option>
        {browser && <option value="only">{name} only</option>}
        {browser && <option value="browser">the browser's</option>}
      </Form.Select>
      {choice.whose !== "browser" && (
        <Form.Text>
          {missing.length === 0
            ? "Everything said from here on is recorded."
            : `Not recorded: ${missing.slice(0, told).join("; ")}${missing.length > told ? ` and ${missing.length - told} more` : ""}. For that ${instead}.`}
        </Form.Text>
      )}
    </Form.Group>
  );
}

const told = 8; // texts that are named
