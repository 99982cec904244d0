import arrowClockwise from "bootstrap-icons/icons/arrow-clockwise.svg?raw";
import arrowCounterclockwise from "bootstrap-icons/icons/arrow-counterclockwise.svg?raw";
import playFill from "bootstrap-icons/icons/play-fill.svg?raw";
import { Button, Col, Form, InputGroup, Row } from "react-bootstrap";
import { useNavigate } from "react-router";
import { Icon } from "../frame/shell/Icon";
import { numberOrText, text } from "../frame/editing/fields";
import type { Plan } from "../wire/contract";
import { FilesMenu } from "./FilesMenu";
import { Saved } from "./Saved";
import { localTime, withZone } from "../frame/editing/times";
import type { Editor } from "./usePlanEditor";
import { t } from "../language/text";

/** Head is the plan as a whole: its title, for whom and when it is, and what can be done with it. */
export function Head({ plan, editor, onLead }: { plan: Plan; editor: Editor; onLead: () => void }) {
  const { document, summary } = editor;
  const navigate = useNavigate();
  const set = (field: string, value: unknown) => {
    const next = { ...document, [field]: value };
    if (value === undefined) delete next[field];
    editor.change({ document: next });
  };
  return (
    <>
      <Row className="g-2 align-items-end mb-2">
        <Col xs={12} lg>
          <h1 className="visually-hidden">
            {t("plan.plan", { title: text(document.title) || t("plan.without-a-title") })}
          </h1>
          <Form.Control
            className="plan-title"
            aria-label={t("plan.title-of-the-plan")}
            placeholder={t("plan.title")}
            value={text(document.title)}
            onChange={(e) => set("title", e.target.value)}
          />
        </Col>
        <Col xs="auto" className="d-flex flex-wrap gap-2 align-items-center">
          <Saved editor={editor} id={plan.id} />
          <Button
            variant="outline-secondary"
            onClick={editor.undo}
            disabled={!editor.undo}
            aria-label={t("frame.undo")}
          >
            <Icon of={arrowCounterclockwise} />
          </Button>
          <Button
            variant="outline-secondary"
            onClick={editor.redo}
            disabled={!editor.redo}
            aria-label={t("plan.redo")}
          >
            <Icon of={arrowClockwise} />
          </Button>
          <FilesMenu id={plan.id} title={text(document.title)} summary={summary} save={editor.save} />
          <Button
            variant="outline-primary"
            disabled={summary.errors.length > 0 || summary.passages.length === 0}
            onClick={() => void editor.save().then(() => navigate(`/try/${plan.id}`))}
          >
            {t("plan.try-it")}
          </Button>
          <Button onClick={onLead} disabled={summary.errors.length > 0 || summary.passages.length === 0}>
            <Icon of={playFill} /> {t("plan.lead")}
          </Button>
        </Col>
      </Row>
      <Row className="g-2 mb-2">
        <Col md={4}>
          <InputGroup>
            <InputGroup.Text as="label" htmlFor="group">
              {t("frame.group")}
            </InputGroup.Text>
            <Form.Select
              id="group"
              value={editor.group}
              onChange={(e) => editor.change({ group: Number(e.target.value) })}
            >
              <option value={0}>{t("frame.none")}</option>
              {plan.groups.map((g) => (
                <option key={g.id} value={g.id}>
                  {g.name}
                </option>
              ))}
            </Form.Select>
          </InputGroup>
        </Col>
        <Col md={4}>
          <InputGroup>
            <InputGroup.Text as="label" htmlFor="starts">
              {t("plan.starts")}
            </InputGroup.Text>
            <Form.Control
              id="starts"
              type="datetime-local"
              value={localTime(document.starts_at)}
              onChange={(e) => set("starts_at", withZone(e.target.value))}
            />
          </InputGroup>
        </Col>
        <NumberField
          label={t("plan.slot")}
          unit={t("frame.min")}
          value={document.slot_min}
          onChange={(v) => set("slot_min", v)}
        />
        <NumberField
          label={t("frame.tempo")}
          unit={t("plan.min")}
          value={document.tempo}
          placeholder="50"
          onChange={(v) => set("tempo", v)}
        />
      </Row>
    </>
  );
}

function NumberField(props: {
  label: string;
  unit: string;
  value: unknown;
  placeholder?: string;
  onChange: (value: number | string | undefined) => void;
}) {
  return (
    <Col md={2}>
      <InputGroup>
        <InputGroup.Text as="label" htmlFor={props.label}>
          {props.label}
        </InputGroup.Text>
        <Form.Control
          id={props.label}
          inputMode="decimal"
          placeholder={props.placeholder}
          value={text(props.value)}
          onChange={(e) => props.onChange(numberOrText(e.target.value))}
        />
        <InputGroup.Text>{props.unit}</InputGroup.Text>
      </InputGroup>
    </Col>
  );
}
