import { Button, Form, Modal } from "react-bootstrap";
import type { Sound } from "./useSound";

/** SoundCard sets how this screen sounds, and checks left and right before class. */
export function SoundCard({ sound, onClose }: { sound: Sound; onClose: () => void }) {
  const { choice, change, check } = sound;
  return (
    <Modal show centered onHide={onClose} aria-labelledby="sound">
      <Modal.Header closeButton>
        <Modal.Title id="sound">Sound of this screen</Modal.Title>
      </Modal.Header>
      <Modal.Body>
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
        <div className="d-flex gap-2 mt-3">
          <Button variant="outline-secondary" disabled={!choice.on} onClick={() => check(-1)}>
            Hear left
          </Button>
          <Button variant="outline-secondary" disabled={!choice.on} onClick={() => check(1)}>
            Hear right
          </Button>
        </div>
        <p className="text-secondary mt-3 mb-0">
          Rising for the inhale, falling for the exhale, one pitch for a hold, a lower one for the empty hold.
          Nothing sounds at own pace but the call back.
        </p>
      </Modal.Body>
    </Modal>
  );
}
