import type { ReactNode } from "react";
import { Form } from "react-bootstrap";
import type { Change, Offer, PassageSummary } from "../wire/contract";
import { numberOrText, text } from "../frame/fields";
import { EndAt } from "./EndAt";
import { Prompts } from "./Prompts";
import { type Edit, set, Steps } from "../frame/Steps";

type Props = Edit & {
  summary: PassageSummary | undefined;
  starts: number | null;
  onAsk: (change: Change) => Promise<string | null>;
};

/** What a field is called, and its words where they need more than themselves. What a passage takes, the application says. */
const fields: { [field: string]: { label: string; words?: { [word: string]: string } } } = {
  wait: { label: "Wait until I go on" },
  keep: { label: "Keep, when the class is shortened" },
  trial: { label: "A try-out, set apart in the record" },
  side: { label: "Side" },
  entry: { label: "Starts with" },
  zone: { label: "Zone" },
  word: { label: "Cue word", words: { on: "on count one", before: "before count one" } },
  voice: {
    label: "Counting",
    words: {
      numbers: "numbers up",
      updown: "up, then down",
      words: "words only",
      holds: "in holds only",
      silent: "silent",
    },
  },
  count_in: { label: "Count-in" },
  lead_in: { label: "Lead-in" },
  natural_pause: { label: "Natural pause" },
  recall: { label: "Call back" },
  rest_between: { label: "Rest between" },
  rest_wait: { label: "Rests wait for me" },
  rest_lead_in: { label: "Lead-in after a rest" },
};

/** Details is the rest of a passage: what is said, how it is counted, how it opens and closes, its cautions. */
export function Details({ doc, summary, starts, onChange, onAsk }: Props) {
  const edit = { doc, onChange };
  const practice = doc.type === "practice";
  const offers = summary?.offers ?? [];
  return (
    <div className="details">
      <div className="fields">
        {offers
          .filter((offer) => offer.flag)
          .map((offer) => (
            <Flag
              key={offer.field}
              edit={edit}
              field={offer.field}
              label={fields[offer.field]?.label ?? offer.field}
            />
          ))}
      </div>
      {practice && (
        <div className="fields">
          {offers
            .filter((offer) => !offer.flag)
            .map((offer) => (
              <Field key={offer.field} edit={edit} offer={offer} />
            ))}
        </div>
      )}
      <Form.Group controlId={`script-${summary?.start_ms}`}>
        <Form.Label>Your words, shown while it runs</Form.Label>
        <Form.Control
          as="textarea"
          rows={2}
          value={text(doc.script)}
          onChange={(e) => set(edit, "script", e.target.value)}
        />
      </Form.Group>
      {practice && <Prompts edit={edit} />}
      {summary && summary.rounds > 0 && <EndAt summary={summary} starts={starts} onAsk={onAsk} />}
      {practice && <Steps edit={edit} field="opening" label="Opening" />}
      {practice && <Steps edit={edit} field="closing" label="Closing" />}
      {summary && summary.cautions.length > 0 && (
        <ul className="cautions">
          {summary.cautions.map((c) => (
            <li key={c.text} className={c.strong ? "strong" : ""}>
              {c.text}
            </li>
          ))}
        </ul>
      )}
    </div>
  );
}

function Flag({ edit, field, label }: { edit: Edit; field: string; label: string }) {
  return (
    <Form.Check
      label={label}
      id={`${field}-flag`}
      checked={edit.doc[field] === true}
      onChange={(e) => set(edit, field, e.target.checked)}
    />
  );
}

function Labelled({ label, children }: { label: string; children: ReactNode }) {
  return (
    <label className="labelled">
      <span>{label}</span>
      {children}
    </label>
  );
}

/** Field is one field that the application offers: a choice of words, or a number. */
function Field({ edit, offer }: { edit: Edit; offer: Offer }) {
  const { label, words } = fields[offer.field] ?? { label: offer.field };
  const given = text(edit.doc[offer.field]);
  if (offer.choices.length === 0)
    return (
      <Labelled label={`${label}, ${offer.unit}`}>
        <Form.Control
          inputMode="decimal"
          placeholder={offer.default}
          value={given}
          onChange={(e) => set(edit, offer.field, numberOrText(e.target.value))}
        />
      </Labelled>
    );
  const [usual] = offer.choices;
  return (
    <Labelled label={label}>
      <Form.Select
        value={given || usual}
        onChange={(e) => set(edit, offer.field, e.target.value === usual ? undefined : e.target.value)}
      >
        {given !== "" && !offer.choices.includes(given) && <option value={given}>{given}</option>}
        {offer.choices.map((word) => (
          <option key={word} value={word}>
            {words?.[word] ?? word}
          </option>
        ))}
      </Form.Select>
    </Labelled>
  );
}
