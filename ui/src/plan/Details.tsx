import type { ReactNode } from "react";
import { Form } from "react-bootstrap";
import type { Change, Offer, PassageSummary } from "../wire/contract";
import { numberOrText, text } from "../frame/editing/fields";
import { BesideEditor } from "./BesideEditor";
import { EndAt } from "./EndAt";
import { nameOf } from "./identity";
import { OwnWords } from "./OwnWords";
import { PacerRow } from "./PacerRow";
import { RoundEditor } from "./RoundEditor";
import { type Edit, set, Steps } from "../frame/editing/Steps";
import { t, text as say, wordOf } from "../language/text";

type Props = Edit & {
  summary: PassageSummary | undefined;
  starts: number | null;
  onAsk: (change: Change) => Promise<string | null>;
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
        <Section name={t("plan.what-is-breathed")}>
          <PacerRow summary={summary} onAsk={onAsk} />
          <RoundEditor edit={edit} summary={summary} onAsk={onAsk} />
          <div className="fields">{shown("breath")}</div>
          {summary.rounds > 0 && <EndAt summary={summary} starts={starts} onAsk={onAsk} />}
        </Section>
      )}
      {practice && (
        <Section name={t("plan.how-it-is-said")}>
          <div className="fields">{shown("voice")}</div>
        </Section>
      )}
      {practice && (
        <Section name={t("frame.before-and-after")}>
          <div className="fields">{shown("around")}</div>
          <Steps edit={edit} field="opening" label={t("frame.opening")} />
          <Steps edit={edit} field="closing" label={t("frame.closing")} />
        </Section>
      )}
      <Section name={t("plan.what-i-say")}>
        <Form.Group controlId={`script-${summary?.start_ms}`}>
          <Form.Label>{t("plan.shown-while-it-runs")}</Form.Label>
          <Form.Control
            as="textarea"
            rows={2}
            value={text(doc.script)}
            onChange={(e) => set(edit, "script", e.target.value)}
          />
          {!practice && <Form.Text>{t("plan.a-line-of-three-hyphens-divides")}</Form.Text>}
        </Form.Group>
        {summary && summary.again.length > 0 && (
          <Form.Check
            type="switch"
            id={`again-${summary.start_ms}`}
            label={t("plan.again-and-again-for-everybody", { value: summary.again.join("” “") })}
            checked={summary.again_on}
            onChange={(e) => void onAsk({ do: "again", counts: e.target.checked ? 1 : 0 })}
          />
        )}
        {summary && <OwnWords name={nameOf(doc)} summary={summary} onAsk={onAsk} />}
      </Section>
      {about("lane").length > 0 && (
        <Section name={t("plan.the-gentler-lane")}>
          {summary && <BesideEditor edit={edit} summary={summary} />}
        </Section>
      )}
      <Section name={t("plan.in-the-class")}>
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
      <h2>{name}</h2>
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
  const label = wordOf("label", offer.field);
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
      <Labelled label={say({ id: "unit.label", args: { label, unit: wordOf("unit", offer.unit) } })}>
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
          if (!word?.endsWith("syllables")) delete doc.syllables; // they belong to no other voice
          set({ ...edit, doc }, "voice", word);
        }}
      >
        {given !== "" && !offer.choices.includes(given) && <option value={given}>{given}</option>}
        {offer.choices.map((word) => (
          <option key={word} value={word}>
            {wordOf(`label.${offer.field}`, word)}
          </option>
        ))}
      </Form.Select>
    </Labelled>
  );
}
