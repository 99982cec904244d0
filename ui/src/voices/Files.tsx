import { useState } from "react";
import { Button, Form } from "react-bootstrap";
import { Progress } from "../frame/shell/Progress";
import type { VoiceWord } from "../wire/contract";
import { wordOf } from "./sounds";
import { failureText, t } from "../language/text";

type Props = { words: VoiceWord[]; send: (text: string, sound: Blob) => Promise<unknown> };

/** One is a file and what became of it. */
type One = { file: File; text: string; wrong: string };

/** Files takes recordings that were made elsewhere: a file that is named as its word goes to it, the others are asked about. */
export function Files({ words, send }: Props) {
  const [left, setLeft] = useState<One[]>([]); // what has no word yet, or could not be taken
  const [progress, setProgress] = useState<{ done: number; of: number } | null>(null);
  const [taken, setTaken] = useState(0);

  const take = async (list: One[]) => {
    setProgress({ done: 0, of: list.length });
    const rest: One[] = [];
    let good = 0;
    for (const [n, one] of list.entries()) {
      if (one.text === "") rest.push(one);
      else
        try {
          await send(one.text, one.file);
          good++;
        } catch (error) {
          rest.push({ ...one, wrong: failureText(error) });
        }
      setProgress({ done: n + 1, of: list.length });
    }
    setLeft(rest);
    setTaken(good);
    setProgress(null);
  };
  const chosen = (files: FileList | null) => {
    const list = [...(files ?? [])].map((file) => ({
      file,
      text: words.find((word) => word.plain === wordOf(file.name))?.text ?? "",
      wrong: "",
    }));
    if (list.length > 0) void take(list);
  };
  return (
    <section className="voicefiles" aria-label={t("voices.from-files")}>
      <Form.Group controlId="voice-files">
        <Form.Label>{t("voices.or-from-files-one-for-each")}</Form.Label>
        <Form.Control
          type="file"
          multiple
          accept="audio/*"
          disabled={progress !== null}
          onChange={(e) => chosen((e.target as HTMLInputElement).files)}
        />
      </Form.Group>
      {progress && (
        <Progress
          className="mt-2"
          done={progress.done / progress.of}
          label={t("voices.of", { done: progress.done, of: progress.of })}
          of={t("voices.files-that-are-taken")}
        />
      )}
      {!progress && taken > 0 && (
        <p role="status" className="mt-2 mb-0">
          {t("voices.taken", { taken })}
        </p>
      )}
      {!progress && left.length > 0 && (
        <div className="mt-2">
          <p className="mb-1">{t("voices.which-word")}</p>
          {left.map((one, n) => (
            <div key={one.file.name} className="d-flex flex-wrap gap-2 align-items-center mb-1">
              <span className="file">{one.file.name}</span>
              <Form.Select
                size="sm"
                className="w-auto"
                aria-label={t("voices.the-word", { name: one.file.name })}
                value={one.text}
                onChange={(e) =>
                  setLeft(left.map((o, i) => (i === n ? { ...o, text: e.target.value, wrong: "" } : o)))
                }
              >
                <option value="">{t("voices.leave-it-out")}</option>
                {words.map((word) => (
                  <option key={word.plain} value={word.text}>
                    {word.text}
                  </option>
                ))}
              </Form.Select>
              {one.wrong !== "" && <span className="text-danger">{one.wrong}</span>}
            </div>
          ))}
          <Button size="sm" onClick={() => void take(left.filter((one) => one.text !== ""))}>
            {t("voices.take-them")}
          </Button>
        </div>
      )}
    </section>
  );
}
