import { homeScoreQuery } from "./queries";
import { useMutation, useQuery } from "@tanstack/react-query";
import { useEffect, useRef, useState } from "react";
import { Button, Form, Modal } from "react-bootstrap";
import { Progress } from "../frame/shell/Progress";
import { Link } from "react-router";
import { ErrorAlert } from "../frame/shell/ErrorAlert";
import { render, type Wanted } from "../player/sound/render";
import { mp3File, wavFile } from "../player/sound/soundFile";
import type { Home } from "../wire/contract";
import { saveBlob } from "../wire/download";
import { daysOf } from "../frame/dialogs/stretches";

const heard: { [part in "tones" | "ticks" | "calls"]: string } = {
  tones: "tones: rising for the inhale, falling for the exhale",
  ticks: "a tick at each count",
  calls: "the calls: the last round, half way",
};

function nothing(wanted: Wanted): boolean {
  return !wanted.tones && !wanted.ticks && !wanted.calls && wanted.voice === "off";
}

/** missingInWords says beforehand what is left to the tones. */
function missingInWords(missing: string[]): string {
  if (missing.length === 0) return "All of it is recorded.";
  return `Not recorded, and left to the tones: ${missing.join("; ")}.`;
}

type FileForm = "mp3" | "wav";

/** SoundDialog makes a file to listen to of a home practice, here in the browser and faster than it is heard. */
export function SoundDialog({ home, onClose }: { home: Home; onClose: () => void }) {
  const [wanted, setWanted] = useState<Wanted>({
    tones: true,
    ticks: true,
    calls: true,
    mono: false,
    voice: "words",
  });
  const [step, setStep] = useState(0);
  const score = useQuery(homeScoreQuery(home.id, step));
  const speaker = score.data?.speaker ?? null;
  const [form, setForm] = useState<FileForm>("mp3");
  const [done, setDone] = useState(0);
  const cancelled = useRef(false);
  useEffect(() => () => void (cancelled.current = true), []);
  const make = useMutation({
    mutationFn: async () => {
      cancelled.current = false;
      setDone(0);
      const file = form === "mp3" ? await mp3File() : wavFile();
      for await (const piece of render(score.data!, wanted)) {
        if (cancelled.current) return;
        file.add(piece);
        setDone(piece.done);
      }
      saveBlob(file.finish(), `${home.name}${home.stretches.length > 1 ? ` ${step + 1}` : ""}.${form}`);
    },
  });
  return (
    <Modal show centered onHide={onClose} aria-labelledby="soundfile">
      <Modal.Header closeButton>
        <Modal.Title id="soundfile">Sound of {home.name}</Modal.Title>
      </Modal.Header>
      <Modal.Body>
        <p>
          {home.stretches[step]!.says}. It is made on this device, in less time than it takes to hear it. The
          first and the last minute are softer. What waits for you in class takes its usual length.
        </p>
        {home.stretches.length > 1 && (
          <Form.Group controlId="soundstep" className="mb-2">
            <Form.Label>Step</Form.Label>
            <Form.Select value={step} onChange={(e) => setStep(Number(e.target.value))}>
              {home.stretches.map((one, i) => (
                <option key={i} value={i}>
                  {daysOf(one)}: {one.says}
                </option>
              ))}
            </Form.Select>
          </Form.Group>
        )}
        {(Object.keys(heard) as (keyof typeof heard)[]).map((part) => (
          <Form.Check
            key={part}
            id={`heard-${part}`}
            label={heard[part]}
            checked={wanted[part]}
            onChange={(e) => setWanted({ ...wanted, [part]: e.target.checked })}
          />
        ))}
        <Form.Check
          id="heard-mono"
          label="mono, for one loudspeaker"
          checked={wanted.mono}
          onChange={(e) => setWanted({ ...wanted, mono: e.target.checked })}
        />
        {speaker && (
          <Form.Group controlId="heard-voice" className="mt-2">
            <Form.Label>{speaker.name} says</Form.Label>
            <Form.Select
              value={wanted.voice}
              onChange={(e) => setWanted({ ...wanted, voice: e.target.value as Wanted["voice"] })}
            >
              <option value="off">nothing</option>
              <option value="words">the words of each phase, the hand and the calls</option>
              <option value="counts">words and counts</option>
            </Form.Select>
            {wanted.voice !== "off" && <Form.Text>{missingInWords(speaker.missing)}</Form.Text>}
          </Form.Group>
        )}
        {score.data && !speaker && (
          <p className="small text-secondary mt-2 mb-0">
            No words: a file takes them from a recorded voice. <Link to="/voices">Record yours</Link>
          </p>
        )}
        {score.isError && <ErrorAlert error={score.error} retry={() => void score.refetch()} />}
        <Form.Group controlId="soundform" className="mt-2">
          <Form.Label>File</Form.Label>
          <Form.Select value={form} onChange={(e) => setForm(e.target.value as FileForm)}>
            <option value="mp3">MP3: small, for a message</option>
            <option value="wav">WAV: exact, for working on it</option>
          </Form.Select>
        </Form.Group>
        {make.isPending && (
          <Progress
            className="mt-3"
            done={done}
            label={`${Math.round(100 * done)} %`}
            of="How much is made"
          />
        )}
        {make.isSuccess && done === 1 && (
          <p role="status" className="mt-3 mb-0">
            The file is ready, in your browser's downloads.
          </p>
        )}
        {make.isError && <ErrorAlert error={make.error} />}
      </Modal.Body>
      <Modal.Footer>
        {make.isPending ? (
          <Button variant="outline-secondary" onClick={() => (cancelled.current = true)}>
            Cancel
          </Button>
        ) : (
          <Button onClick={() => make.mutate()} disabled={!score.data || nothing(wanted)}>
            Make the file
          </Button>
        )}
      </Modal.Footer>
    </Modal>
  );
}
