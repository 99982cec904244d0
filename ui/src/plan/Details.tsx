import type { ReactNode } from "react";
import { Form } from "react-bootstrap";
import type { PassageSummary } from "../wire/contract";
import { numberOrText, text } from "../frame/fields";
import { EndAt } from "./EndAt";
import { Prompts } from "./Prompts";
import { type Edit, set, Steps } from "../frame/Steps";
import type { Change } from "./usePlanEditor";

type Props = Edit & {
  summary: PassageSummary | undefined;
  number: number;
  starts: number | null;
  onAsk: (change: Change) => Promise<string | null>;
};

/** Details is the rest of a passage: what is said, how it is counted, how it opens and closes, its cautions. */
export function Details({ doc, summary, number, starts, onChange, onAsk }: Props) {
  const edit = { doc, onChange };
  const practice = doc.type === "practice";
  const takes = (field: string) => summary?.takes.includes(field) === true;
  return (
    <div className="details">
      <div className="fields">
        {!practice && <Flag edit={edit} field="wait" label="Wait until I go on" />}
        <Flag edit={edit} field="keep" label="Keep, when the class is shortened" />
        {practice && <Flag edit={edit} field="trial" label="A try-out, set apart in the record" />}
      </div>
      {practice && (
        <div className="fields">
          {takes("side") && <Choice edit={edit} field="side" label="Side" words={["left", "right"]} />}
          {takes("entry") && (
            <Choice edit={edit} field="entry" label="Starts with" words={["inhale", "exhale"]} />
          )}
          {takes("zone") && (
            <Choice edit={edit} field="zone" label="Zone" words={["all", "belly", "ribs", "chest"]} />
          )}
          <Choice
            edit={edit}
            field="word"
            label="Cue word"
            words={["on", "before"]}
            shown={["on count one", "before count one"]}
          />
          <Choice
            edit={edit}
            field="voice"
            label="Counting"
            words={["numbers", "updown", "words", "holds", "silent"]}
            shown={["numbers up", "up, then down", "words only", "in holds only", "silent"]}
          />
          <NumberOf edit={edit} field="count_in" label="Count-in" unit="counts" otherwise="0" />
          <NumberOf
            edit={edit}
            field="lead_in"
            label="Lead-in"
            unit="counts"
            otherwise={doc.pace === "own" ? "0" : "4"}
          />
          <NumberOf edit={edit} field="natural_pause" label="Natural pause" unit="s" otherwise="0" />
          {doc.pace === "own" ? (
            <NumberOf edit={edit} field="recall" label="Call back" unit="s" otherwise="15" />
          ) : (
            <>
              <NumberOf edit={edit} field="rest_between" label="Rest between" unit="s" otherwise="0" />
              <Flag edit={edit} field="rest_wait" label="Rests wait for me" />
            </>
          )}
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
      {summary && summary.rounds > 0 && (
        <EndAt summary={summary} number={number} starts={starts} onAsk={onAsk} />
      )}
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

function Choice(props: { edit: Edit; field: string; label: string; words: string[]; shown?: string[] }) {
  const { edit, field, words } = props;
  const given = text(edit.doc[field]);
  return (
    <Labelled label={props.label}>
      <Form.Select
        value={given || words[0]}
        onChange={(e) => set(edit, field, e.target.value === words[0] ? undefined : e.target.value)}
      >
        {given !== "" && !words.includes(given) && <option value={given}>{given}</option>}
        {words.map((word, i) => (
          <option key={word} value={word}>
            {props.shown?.[i] ?? word}
          </option>
        ))}
      </Form.Select>
    </Labelled>
  );
}

function NumberOf(props: { edit: Edit; field: string; label: string; unit: string; otherwise: string }) {
  return (
    <Labelled label={`${props.label}, ${props.unit}`}>
      <Form.Control
        inputMode="decimal"
        placeholder={props.otherwise}
        value={text(props.edit.doc[props.field])}
        onChange={(e) => set(props.edit, props.field, numberOrText(e.target.value))}
      />
    </Labelled>
  );
}
