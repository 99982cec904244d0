import { Form } from "react-bootstrap";
import phases from "../../phases.json";
import { text } from "../frame/editing/fields";
import type { PracticeDoc } from "./OwnEditor";
import { t, wordOf } from "../language/text";

/** PhaseWords gives phases words of the practice's own. */
export function PhaseWords(props: {
  words: { [phase: string]: string };
  onChange: (words: { [phase: string]: string }) => void;
}) {
  return (
    <fieldset className="mb-2">
      <legend>{t("practices.cue-words-where-they")}</legend>
      <div className="d-flex flex-wrap gap-2">
        {phases.ofAFigure.map((phase) => (
          <Form.Control
            key={phase}
            className="w-auto"
            aria-label={t("practices.word-for-2", { phase: wordOf("phase", phase) })}
            placeholder={wordOf("phase", phase)}
            value={props.words[phase] ?? ""}
            onChange={(e) => {
              const next = { ...props.words, [phase]: e.target.value };
              if (e.target.value === "") delete next[phase];
              props.onChange(next);
            }}
          />
        ))}
      </div>
    </fieldset>
  );
}

const aspects = (): [string, string][] => [
  ["strokes", t("practices.strokes-and-panting")],
  ["locks", t("practices.locks-2")],
  ["joy", t("practices.swinging-and-bending")],
  ["one-sided", t("practices.one-nostril-at-a-time")],
  ["sun", t("practices.warming-as-sun-breath")],
  ["moon", t("practices.cooling-as-moon-breath")],
  ["partner", t("practices.partner-work")],
];

/** MoreCare adds cautions; those that the practice came with stay. */
export function MoreCare(props: { base: PracticeDoc; doc: PracticeDoc; onChange: (care: string[]) => void }) {
  const list = (doc: PracticeDoc) => (Array.isArray(doc.care) ? doc.care.map(text) : []);
  const fixed = props.base.from ? list(props.base) : [];
  const now = list(props.doc);
  return (
    <fieldset className="mb-2">
      <legend>{t("practices.cautions-to-add")}</legend>
      {aspects().map(([id, name]) => (
        <Form.Check
          inline
          key={id}
          id={`care-${id}`}
          label={name}
          disabled={fixed.includes(id)}
          checked={now.includes(id)}
          onChange={(e) => props.onChange(e.target.checked ? [...now, id] : now.filter((c) => c !== id))}
        />
      ))}
    </fieldset>
  );
}
