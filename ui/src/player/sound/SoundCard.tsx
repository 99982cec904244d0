import type { ReactNode } from "react";
import { Button, Form, Modal } from "react-bootstrap";
import type { Sound } from "./useSound";
import type { Choice } from "./choice";
import type { Speaker } from "../../wire/contract";
import { canVibrate, useVoices } from "./useSpoken";
import { useSay } from "../say";

/** SoundCard is the sound of a screen, in a card before it. */
export function SoundCard({ sound, onClose }: { sound: Sound; onClose: () => void }) {
  const say = useSay();
  return (
    <Modal show centered onHide={onClose} aria-labelledby="sound">
      <Modal.Header closeButton closeLabel={say("close")}>
        <Modal.Title id="sound">{say("sound-of")}</Modal.Title>
      </Modal.Header>
      <Modal.Body>
        <SoundSettings sound={sound} />
      </Modal.Body>
    </Modal>
  );
}

/** SoundSettings sets how this screen sounds, and checks left and right before class. children are what is the lead screen's own. */
export function SoundSettings({ sound, children }: { sound: Sound; children?: ReactNode }) {
  const say = useSay();
  const voices = useVoices();
  const { choice, change, check, speaker } = sound;
  const speaks = voices.length > 0 || speaker !== null;
  return (
    <>
      <Form.Check
        type="switch"
        id="sound-on"
        label={say("sound")}
        checked={choice.on}
        onChange={(e) => change({ on: e.target.checked })}
      />
      <Form.Label htmlFor="volume" className="mt-3">
        {say("volume")}
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
        label={say("tones")}
        checked={choice.tones}
        onChange={(e) => change({ tones: e.target.checked })}
      />
      <Form.Check
        id="ticks"
        label={say("ticks")}
        checked={choice.ticks}
        onChange={(e) => change({ ticks: e.target.checked })}
      />
      <Form.Check
        id="swap"
        label={say("swap")}
        checked={choice.swap}
        onChange={(e) => change({ swap: e.target.checked })}
      />
      <Form.Check
        id="mono"
        label={say("mono")}
        checked={choice.mono}
        onChange={(e) => change({ mono: e.target.checked })}
      />
      <Form.Check
        id="others"
        label={say("others-too")}
        checked={choice.others}
        onChange={(e) => change({ others: e.target.checked })}
      />
      {children}
      {canVibrate && (
        <Form.Check
          id="vibrate"
          label={say("vibrate")}
          checked={choice.vibrate}
          onChange={(e) => change({ vibrate: e.target.checked })}
        />
      )}
      <Form.Group controlId="voice" className="mt-2">
        <Form.Label>{say("spoken")}</Form.Label>
        <Form.Select
          value={speaks ? choice.voice : "off"}
          disabled={!speaks}
          onChange={(e) => change({ voice: e.target.value as Choice["voice"] })}
        >
          <option value="off">{say("spoken-off")}</option>
          <option value="cues">{say("spoken-cues")}</option>
          <option value="words">{say("spoken-words")}</option>
          <option value="counts">{say("spoken-counts")}</option>
        </Form.Select>
        {!speaks && <Form.Text>{say("no-voice")}</Form.Text>}
      </Form.Group>
      {speaker && choice.voice !== "off" && (
        <Whose sound={sound} speaker={speaker} browser={voices.length > 0} />
      )}
      <div className="d-flex gap-2 mt-3">
        <Button variant="outline-secondary" disabled={!choice.on} onClick={() => check(-1)}>
          {say("test-left")}
        </Button>
        <Button variant="outline-secondary" disabled={!choice.on} onClick={() => check(1)}>
          {say("test-right")}
        </Button>
      </div>
      <p className="text-secondary mt-3 mb-0">{say("own-pace-sound")}</p>
    </>
  );
}

/** Whose chooses between a recorded voice and the browser's, and says beforehand what the former does not say. */
function Whose({ sound, speaker, browser }: { sound: Sound; speaker: Speaker; browser: boolean }) {
  const { choice, change } = sound;
  const { missing, name } = speaker;
  const say = useSay();
  const instead = say(browser && choice.whose === "own" ? "instead-browser" : "instead-tones");
  return (
    <Form.Group controlId="whose" className="mt-2">
      <Form.Label>{say("whose")}</Form.Label>
      <Form.Select
        value={choice.whose}
        onChange={(e) => change({ whose: e.target.value as Choice["whose"] })}
      >
        <option value="own">{say(browser ? "whose-own-browser" : "whose-own-tones", { name })}</option>
        {browser && <option value="only">{say("whose-only", { name })}</option>}
        {browser && <option value="browser">{say("whose-browser")}</option>}
      </Form.Select>
      {choice.whose !== "browser" && (
        <Form.Text>
          {missing.length === 0
            ? say("recorded-all")
            : `${say("recorded-not", { list: missing.slice(0, told).join("; "), more: Math.max(0, missing.length - told) })} ${instead}`}
        </Form.Text>
      )}
    </Form.Group>
  );
}

const told = 8; // texts that are named
