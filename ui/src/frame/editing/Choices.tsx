import "./choices.css";
import { Form } from "react-bootstrap";
import type { Question } from "../../wire/contract";
import { t, text } from "../../language/text";

type Ways = { [question: string]: string };

type Props = {
  questions: Question[];
  chosen: Ways;
  /** what holds where nothing is chosen: a teacher's ways, for a group; none for the teacher */
  otherwise?: Ways;
  onChange: (chosen: Ways) => void;
};

/** Choices asks each question on which schools differ. */
export function Choices({ questions, chosen, otherwise, onChange }: Props) {
  return (
    <div className="choices">
      {questions.map((q) => {
        const first = otherwise ? (otherwise[q.id] ?? q.ways[0]!.id) : q.ways[0]!.id;
        const put = (way: string) => {
          const next = { ...chosen, [q.id]: way };
          if (way === "" || (!otherwise && way === first)) delete next[q.id];
          onChange(next);
        };
        return (
          <Form.Group key={q.id} controlId={`school-${q.id}`} className="choice">
            <Form.Label>{text(q.asks)}</Form.Label>
            <Form.Select
              value={chosen[q.id] ?? (otherwise ? "" : first)}
              onChange={(e) => put(e.target.value)}
            >
              {otherwise && (
                <option value="">
                  {t("frame.as-in-your-school", { says: text(q.ways.find((w) => w.id === first)?.says) })}
                </option>
              )}
              {q.ways.map((w) => (
                <option key={w.id} value={w.id}>
                  {text(w.says)}
                </option>
              ))}
            </Form.Select>
          </Form.Group>
        );
      })}
    </div>
  );
}
