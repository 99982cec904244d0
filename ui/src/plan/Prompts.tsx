import "../frame/steps.css";
import trash from "bootstrap-icons/icons/trash.svg?raw";
import { Button, Form } from "react-bootstrap";
import { numberOrText, text } from "../frame/fields";
import { Icon } from "../frame/Icon";
import { type Edit, set } from "../frame/Steps";

type Prompt = { [field: string]: unknown };

const moments = ["round", "rest", "second"];

/** Prompts is what to say when a round, a rest, or a second of an own-pace stretch is reached. */
export function Prompts({ edit }: { edit: Edit }) {
  const list = Array.isArray(edit.doc.prompts) ? (edit.doc.prompts as Prompt[]) : [];
  const put = (next: Prompt[]) => set(edit, "prompts", next.length > 0 ? next : undefined);
  const own = edit.doc.pace === "own";
  return (
    <fieldset className="steps">
      <legend>Prompts</legend>
      {list.map((prompt, i) => {
        const moment = moments.find((m) => prompt[m] !== undefined) ?? "round";
        const change = (next: Prompt) => put(list.with(i, next));
        return (
          <div className="step" key={i}>
            <Form.Select
              className="counts"
              aria-label={`Moment of prompt ${i + 1}`}
              value={moment}
              onChange={(e) => change({ [e.target.value]: prompt[moment], text: prompt.text })}
            >
              {moments.map((m) => (
                <option key={m}>{m}</option>
              ))}
            </Form.Select>
            <Form.Control
              className="seconds"
              aria-label={`Which ${moment} of prompt ${i + 1}`}
              inputMode="decimal"
              value={text(prompt[moment])}
              onChange={(e) => change({ ...prompt, [moment]: numberOrText(e.target.value) ?? "" })}
            />
            <Form.Control
              className="text"
              aria-label={`Text of prompt ${i + 1}`}
              value={text(prompt.text)}
              onChange={(e) => change({ ...prompt, text: e.target.value })}
            />
            <Button
              variant="link"
              size="sm"
              aria-label={`Remove prompt ${i + 1}`}
              onClick={() => put(list.toSpliced(i, 1))}
            >
              <Icon of={trash} />
            </Button>
          </div>
        );
      })}
      <Button
        variant="link"
        size="sm"
        onClick={() => put([...list, own ? { second: 30, text: "" } : { round: list.length + 1, text: "" }])}
      >
        + prompt
      </Button>
    </fieldset>
  );
}
