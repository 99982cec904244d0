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
import { rich, t } from "../language/text";

const heard = (): { [part in "tones" | "ticks" | "calls"]: string } => ({
  tones: t("home.tones-rising-for-the-inhale-falling"),
  ticks: t("home.a-tick-at-each-count"),
  calls: t("home.the-calls-the-last-round-half"),
});

function nothing(wanted: Wanted): boolean {
  return !wanted.tones && !wanted.ticks && !wanted.calls && wanted.voice === "off";
}

/** missingInWords says beforehand what is left to the tones. */
function missingInWords(missing: string[]): string {
  if (missing.length === 0) return t("home.all-of-it-is-recorded");
  return t("home.not-recorded-and-left", { value: missing.join("; ") });
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
      <Modal.Header closeButton closeLabel={t("frame.close")}>
        <Modal.Title id="soundfile">{t("home.sound-of", { name: home.name })}</Modal.Title>
      </Modal.Header>
      <Modal.Body>
        <p>{t("home.it-is-made-on-this-device", { says: home.stretches[step]!.says })}</p>
        {home.stretches.length > 1 && (
          <Form.Group controlId="soundstep" className="mb-2">
            <Form.Label>{t("frame.step")}</Form.Label>
            <Form.Select value={step} onChange={(e) => setStep(Number(e.target.value))}>
              {home.stretches.map((one, i) => (
                <option key={i} value={i}>
                  {daysOf(one)}: {one.says}
                </option>
              ))}
            </Form.Select>
          </Form.Group>
        )}
        {(["tones", "ticks", "calls"] as const).map((part) => (
          <Form.Check
            key={part}
            id={`heard-${part}`}
            label={heard()[part]}
            checked={wanted[part]}
            onChange={(e) => setWanted({ ...wanted, [part]: e.target.checked })}
          />
        ))}
        <Form.Check
          id="heard-mono"
          label={t("home.mono-for-one-loudspeaker")}
          checked={wanted.mono}
          onChange={(e) => setWanted({ ...wanted, mono: e.target.checked })}
        />
        {speaker && (
          <Form.Group controlId="heard-voice" className="mt-2">
            <Form.Label>{t("home.says", { name: speaker.name })}</Form.Label>
            <Form.Select
              value={wanted.voice}
              onChange={(e) => setWanted({ ...wanted, voice: e.target.value as Wanted["voice"] })}
            >
              <option value="off">{t("frame.nothing")}</option>
              <option value="words">{t("home.the-words-of-each-phase")}</option>
              <option value="counts">{t("home.words-and-counts")}</option>
            </Form.Select>
            {wanted.voice !== "off" && <Form.Text>{missingInWords(speaker.missing)}</Form.Text>}
          </Form.Group>
        )}
        {score.data && !speaker && (
          <p className="small text-secondary mt-2 mb-0">
            {rich("home.no-words-a-file-takes-them", {
              link: <Link to="/voices">{t("home.record-yours")}</Link>,
            })}
          </p>
        )}
        {score.isError && <ErrorAlert error={score.error} retry={() => void score.refetch()} />}
        <Form.Group controlId="soundform" className="mt-2">
          <Form.Label>{t("home.file")}</Form.Label>
          <Form.Select value={form} onChange={(e) => setForm(e.target.value as FileForm)}>
            <option value="mp3">{t("home.mp3-small-for-a-message")}</option>
            <option value="wav">{t("home.wav-exact-for-working")}</option>
          </Form.Select>
        </Form.Group>
        {make.isPending && (
          <Progress
            className="mt-3"
            done={done}
            label={`${Math.round(100 * done)} %`}
            of={t("home.how-much-is-made")}
          />
        )}
        {make.isSuccess && done === 1 && (
          <p role="status" className="mt-3 mb-0">
            {t("home.the-file-is-ready")}
          </p>
        )}
        {make.isError && <ErrorAlert error={make.error} />}
      </Modal.Body>
      <Modal.Footer>
        {make.isPending ? (
          <Button variant="outline-secondary" onClick={() => (cancelled.current = true)}>
            {t("frame.cancel")}
          </Button>
        ) : (
          <Button onClick={() => make.mutate()} disabled={!score.data || nothing(wanted)}>
            {t("home.make-the-file")}
          </Button>
        )}
      </Modal.Footer>
    </Modal>
  );
}
