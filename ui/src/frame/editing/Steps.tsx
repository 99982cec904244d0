import "./steps.css";
import { Button, Form } from "react-bootstrap";
import { numberOrText, text } from "./fields";
import type { PassageDoc } from "../../wire/plan";

export type Edit = { doc: PassageDoc; onChange: (doc: PassageDoc) => void };

/** set changes one field of a passage. */
export function set({ doc, onChange }: Edit, field: string, value: unknown) {
  const next = { ...doc, [field]: value };
  if (value === undefined || value === false || value === "") delete next[field]; // absent is the default
  onChange(next);
}

type StepDoc = { [field: string]: unknown };

/** Steps edits an opening or a closing: counted breaths and free stretches in order. */
export function Steps({ edit, field, label }: { edit: Edit; field: string; label: string }) {
  const steps = Array.isArray(edit.doc[field]) ? (edit.doc[field] as StepDoc[]) : [];
  const put = (next: StepDoc[]) => set(edit, field, next.length > 0 ? next : undefined);
  const change = (i: number, name: string, value: unknown) => {
    const step = { ...steps[i], [name]: value };
    if (value === undefined || value === "") delete step[name];
    put(steps.with(i, step));
  };
  return (
    <fieldset className="steps">
      <legend>{label}</legend>
      {steps.map((step, i) => {
        const free = "seconds" in step;
        const input = (name: string, what: string, read: (typed: string) => unknown, placeholder = "") => (
          <Form.Control
            aria-label={`${label} ${i + 1}, ${what}`}
            className={name}
            placeholder={placeholder}
            value={text(step[name])}
            onChange={(e) => change(i, name, read(e.target.value))}
          />
        );
        const asTyped = (typed: string) => typed;
        return (
          <div key={i} className="step">
            {free ? (
              <>
                {input("seconds", "seconds", (typed) => numberOrText(typed) ?? 0)} s natural breath,
                {input("text", "what to say", asTyped, "hand down, notice")}
              </>
            ) : (
              <>
                {input("breaths", "breaths", (typed) => numberOrText(typed) ?? 0)} breaths,
                {input("counts", "counts", asTyped, "counts as planned, no holds")}
                <Form.Select
                  aria-label={`${label} ${i + 1}, through`}
                  value={text(step.airway) || "nose"}
                  onChange={(e) =>
                    change(i, "airway", e.target.value === "nose" ? undefined : e.target.value)
                  }
                >
                  <option value="nose">through the nose</option>
                  <option value="out-mouth">out through the mouth</option>
                  <option value="in-mouth">in through the mouth</option>
                  <option value="mouth">through the mouth</option>
                </Form.Select>
              </>
            )}
            <Button variant="link" size="sm" onClick={() => put(steps.toSpliced(i, 1))}>
              remove
            </Button>
          </div>
        );
      })}
      <Button variant="link" size="sm" onClick={() => put([...steps, { breaths: 1 }])}>
        + breaths
      </Button>
      <Button variant="link" size="sm" onClick={() => put([...steps, { seconds: 30 }])}>
        + natural breath
      </Button>
    </fieldset>
  );
}
