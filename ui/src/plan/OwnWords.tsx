import { phrasesQuery } from "./queries";
import { useQuery } from "@tanstack/react-query";
import { useId, useState } from "react";
import { Button, Form } from "react-bootstrap";
import { OwnLines } from "./OwnLines";
import type { Change, PassageSummary } from "../wire/contract";
import { t } from "../language/text";

type Props = { name: string; summary: PassageSummary; onAsk: (change: Change) => Promise<string | null> };

/** The places that a click puts before a phrase, by what the passage is. */
function placesOf(summary: PassageSummary): string[] {
  if (summary.type !== "practice") return ["0:30"];
  if (summary.own_pace) return ["0:30", "recall"];
  const phases = [...new Set(summary.round.map((phase) => phase.kind))].filter((kind) => kind !== "still");
  return [
    "r1",
    ...phases.map((kind) => `every ${kind}`),
    ...(summary.rounds > 1 ? [`r${summary.rounds}`] : []),
  ];
}

/** What was typed and not understood, by the passage's name: it is there again when the row is opened again. */
const unfinished = new Map<string, { typed: string; problem: string }>();

/**
 * OwnWords is what the teacher says, a line for each place: "r3 hold: root lock". What is not understood stays in the field, and
 * what was said in other plans, and what the practice suggests, is offered.
 */
export function OwnWords({ name, summary, onAsk }: Props) {
  const [typed, setTyped] = useState<string | null>(unfinished.get(name)?.typed ?? null);
  const [problem, setProblem] = useState(unfinished.get(name)?.problem ?? "");
  const id = useId();
  const phrases = useQuery(phrasesQuery(summary.practice));
  const value = typed ?? summary.own_words;
  const write = async (text: string) => {
    setTyped(text);
    const why = await onAsk({ do: "own-words", text });
    if (why === null) return;
    setProblem(why);
    if (why === "") unfinished.delete(name);
    else unfinished.set(name, { typed: text, problem: why });
  };
  const append = (place: string, words: string) =>
    void write(`${value === "" ? "" : value.replace(/\n*$/, "\n")}${place}: ${words}`);
  const [first, ...places] = placesOf(summary);
  return (
    <Form.Group controlId={id}>
      <Form.Label>{t("plan.my-words-and-when-a-line")}</Form.Label>
      <Form.Control
        as="textarea"
        className="ownwords"
        rows={Math.max(2, value.split("\n").length + 1)}
        spellCheck
        placeholder={`${first}: ${summary.type === "practice" ? t("plan.light-as-a-feather") : t("plan.feel-the-floor")}`}
        value={value}
        isInvalid={problem !== ""}
        onChange={(e) => void write(e.target.value)}
        onBlur={() => {
          if (problem === "") setTyped(null); // what was not understood stays to be mended
        }}
      />
      <Form.Control.Feedback type="invalid" className="lines">
        {problem}
      </Form.Control.Feedback>
      <OwnLines lines={summary.lines} />
      <Form.Text>
        {t("plan.begin-with-the-place-1-30", { value: [first, ...places].map((p) => `${p}:`).join(" ") })}
      </Form.Text>
      {(phrases.data?.phrases.length ?? 0) > 0 && (
        <div className="phrases" role="group" aria-label={t("plan.said-before-or-suggested")}>
          {phrases.data!.phrases.map((words) => (
            <Button key={words} size="sm" variant="outline-secondary" onClick={() => append(first!, words)}>
              {words}
            </Button>
          ))}
        </div>
      )}
    </Form.Group>
  );
}
