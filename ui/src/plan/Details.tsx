import type { ReactNode } from "react";
import { Form } from "react-bootstrap";
import type { Change, Offer, PassageSummary } from "../wire/contract";
import { numberOrText, text } from "../frame/fields";
import { BesideEditor } from "./BesideEditor";
import { EndAt } from "./EndAt";
import { nameOf } from "./identity";
import { OwnWords } from "./OwnWords";
import { RoundEditor } from "./RoundEditor";
import { type Edit, set, Steps } from "../frame/Steps";
import { text as say } from "../language/text";

type Props = Edit & {
  summary: PassageSummary | undefined;
  starts: number | null;
  onAsk: (change: Change) => Promise<string | null>;
};

type Name = { label: string; words?: { [word: string]: string } };

const widths = { wide: "wide", narrow: "narrowed" };

/** What a field is called, and its words where they need more than themselves. What a passage takes, the application says. */
const fields: { [field: string]: Name } = {
  wait: { label: "Wait until I go on" },
  keep: { label: "Keep, when the class is shortened" },
  trial: { label: "A try-out, set apart in the record" },
  side: { label: "Side" },
  entry: { label: "Starts with", words: { inhale: "an inhale", exhale: "an exhale" } },
  airway: {
    label: "Through",
    words: {
      nose: "the nose",
      "out-mouth": "in through the nose, out through the mouth",
      "in-mouth": "in through the mouth, out through the nose",
      mouth: "the mouth",
    },
  },
  zone: { label: "Zone", words: { all: "all three, stacked" } },
  attention: {
    label: "Attention to",
    words: { front: "the front", sides: "the sides", back: "the low back", round: "all round" },
  },
  "aperture.inhale": { label: "Nostrils, inhale", words: widths },
  "aperture.exhale": { label: "Nostrils, exhale", words: widths },
  natural_pause: { label: "Natural pause" },
  word: { label: "Cue word", words: { on: "on count one", before: "before count one" } },
  voice: {
    label: "Counting",
    words: {
      numbers: "numbers up",
      updown: "up, then down",
      syllables: "syllables",
      words: "words only",
      holds: "in holds only",
      silent: "silent",
    },
  },
  syllables: { label: "Syllables, for counts 1, 2, 3 …" },
  "fade.words_after": { label: "Words only after" },
  "fade.silent_after": { label: "Silent after" },
  count_in: { label: "Count-in" },
  lead_in: { label: "Lead-in" },
  recall: { label: "Call back" },
  rest_between: { label: "Rest between" },
  rest_wait: { label: "Wait for me after each rest" },
  rest_lead_in: { label: "Lead-in after a rest" },
};

/** Details is the rest of a passage, arranged by what a teacher asks. */
export function Details({ doc, summary, starts, onChange, onAsk }: Props) {
  const edit = { doc, onChange };
  const practice = doc.type === "practice";
  const about = (what: Offer["about"]) => (summary?.offers ?? []).filter((offer) => offer.about === what);
  const shown = (what: Offer["about"]) =>
    about(what).map((offer) => <Field key={offer.field} edit={edit} offer={offer} />);
  return (
    <div className="details">
      {practice && summary && (
        <Section name="What is breathed">
          <RoundEditor edit={edit} summary={summary} onAsk={onAsk} />
          <div className="fields">{shown("breath")}</div>
          {summary.rounds > 0 && <EndAt summary={summary} starts={starts} onAsk={onAsk} />}
        </Section>
      )}
      {practice && (
        <Section name="How it is said">
          <div className="fields">{shown("voice")}</div>
        </Section>
      )}
      {practice && (
        <Section name="Before and after">
          <div className="fields">{shown("around")}</div>
          <Steps edit={edit} field="opening" label="Opening" />
          <Steps edit={edit} field="closing" label="Closing" />
        </Section>
      )}
      <Section name="What I say">
        <Form.Group controlId={`script-${summary?.start_ms}`}>
          <Form.Label>Shown while it runs</Form.Label>
          <Form.Control
            as="textarea"
            rows={2}
            value={text(doc.script)}
            onChange={(e) => set(edit, "script", e.target.value)}
          />
        </Form.Group>
        {summary && <OwnWords name={nameOf(doc)} summary={summary} onAsk={onAsk} />}
      </Section>
      {about("lane").length > 0 && (
        <Section name="The gentler lane">{summary && <BesideEditor edit={edit} summary={summary} />}</Section>
      )}
      <Section name="In the class">
        <div className="fields">{shown("class")}</div>
      </Section>
      {summary && summary.cautions.length > 0 && (
        <ul className="cautions">
          {summary.cautions.map((c) => (
            <li key={c.id} className={c.strong ? "strong" : ""}>
              {say(c.say)}
            </li>
          ))}
        </ul>
      )}
    </div>
  );
}

function Section({ name, children }: { name: string; children: ReactNode }) {
  return (
    <section aria-label={name}>
      <h3>{name}</h3>
      <div>{children}</div>
    </section>
  );
}

/** read and write one field of a passage; one of an object is named with a dot. */
function read({ doc }: Edit, field: string): unknown {
  const [name, part] = field.split(".");
  if (part === undefined) return doc[field];
  return (doc[name!] as { [part: string]: unknown } | undefined)?.[part];
}

function write(edit: Edit, field: string, value: unknown) {
  const [name, part] = field.split(".");
  if (part === undefined) return set(edit, field, value);
  const all = { ...(edit.doc[name!] as { [part: string]: unknown } | undefined) };
  if (value === undefined) delete all[part];
  else all[part] = value;
  set(edit, name!, Object.keys(all).length > 0 ? all : undefined);
}

function Labelled({ label, children }: { label: string; children: ReactNode }) {
  return (
    <label className="labelled">
      <span>{label}</span>
      {children}
    </label>
  );
}

/** Field is one field that the application offers: a flag, a choice of words, words, or a number. */
function Field({ edit, offer }: { edit: Edit; offer: Offer }) {
  const { label, words } = fields[offer.field] ?? { label: offer.field };
  const value = read(edit, offer.field);
  if (offer.flag)
    return (
      <Form.Check
        label={label}
        id={`${offer.field}-flag`}
        checked={value === true}
        onChange={(e) => set(edit, offer.field, e.target.checked)}
      />
    );
  if (offer.text)
    return (
      <Labelled label={label}>
        <Form.Control
          value={Array.isArray(value) ? value.join(" ") : text(value)}
          onChange={(e) => {
            const list = e.target.value.split(" ");
            set(edit, offer.field, list.join("") === "" ? undefined : list);
          }}
        />
      </Labelled>
    );
  if (offer.choices.length === 0)
    return (
      <Labelled label={`${label}, ${offer.unit}`}>
        <Form.Control
          inputMode="decimal"
          placeholder={offer.default}
          value={text(value)}
          onChange={(e) => write(edit, offer.field, numberOrText(e.target.value))}
        />
      </Labelled>
    );
  const [usual] = offer.choices;
  const given = text(value);
  return (
    <Labelled label={label}>
      <Form.Select
        value={given || usual}
        onChange={(e) => {
          const word = e.target.value === usual ? undefined : e.target.value;
          if (offer.field !== "voice") return write(edit, offer.field, word);
          const doc = { ...edit.doc };
          if (word !== "syllables") delete doc.syllables; // they belong to no other voice
          set({ ...edit, doc }, "voice", word);
        }}
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
