import "./steps.css";
import { Button, Form } from "react-bootstrap";
import { numberOrText, text } from "./fields";
import type { PassageDoc } from "../../wire/plan";
import { rich, t } from "../../language/text";

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
                {rich("frame.s-natural-breath", {
                  value: input("seconds", t("frame.seconds"), (typed) => numberOrText(typed) ?? 0),
                  value2: input("text", t("frame.what-to-say"), asTyped, t("frame.hand-down-notice")),
                })}
              </>
            ) : (
              <>
                {rich("frame.breaths", {
                  value: input("breaths", t("frame.breaths-label"), (typed) => numberOrText(typed) ?? 0),
                  value2: input("counts", t("frame.counts"), asTyped, t("frame.counts-as-planned-no-holds")),
                })}
                <Form.Select
                  aria-label={t("frame.through", { label, i: i + 1 })}
                  value={text(step.airway) || "nose"}
                  onChange={(e) =>
                    change(i, "airway", e.target.value === "nose" ? undefined : e.target.value)
                  }
                >
                  <option value="nose">{t("frame.through-the-nose")}</option>
                  <option value="out-mouth">{t("frame.out-through-the-mouth")}</option>
                  <option value="in-mouth">{t("frame.in-through-the-mouth")}</option>
                  <option value="mouth">{t("frame.through-the-mouth")}</option>
                </Form.Select>
              </>
            )}
            <Button variant="link" size="sm" onClick={() => put(steps.toSpliced(i, 1))}>
              {t("frame.remove-2")}
            </Button>
          </div>
        );
      })}
      <Button variant="link" size="sm" onClick={() => put([...steps, { breaths: 1 }])}>
        {t("frame.breaths-2")}
      </Button>
      <Button variant="link" size="sm" onClick={() => put([...steps, { seconds: 30 }])}>
        {t("frame.natural-breath")}
      </Button>
    </fieldset>
  );
}
