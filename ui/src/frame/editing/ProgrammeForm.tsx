import "./programme.css";
import { useState } from "react";
import { Button, Form } from "react-bootstrap";
import { PickPlan } from "./PickPlan";
import type { Programme, ProgrammePassage, Step } from "../../wire/contract";
import { t } from "../../language/text";

type Props = {
  programme: Programme;
  passages: ProgrammePassage[];
  onChange: (programme: Programme) => void;
};

/** ProgrammeForm is what a programme asks for, step after step, and when it goes on. */
export function ProgrammeForm({ programme, passages, onChange }: Props) {
  const set = (part: Partial<Programme>) => onChange({ ...programme, ...part });
  const { by, steps } = programme;
  return (
    <>
      <div className="d-flex flex-wrap gap-3">
        <Form.Group controlId="programme-name" className="flex-grow-1">
          <Form.Label>{t("frame.name")}</Form.Label>
          <Form.Control
            value={programme.name}
            maxLength={100}
            required
            onChange={(e) => set({ name: e.target.value })}
          />
        </Form.Group>
        <Form.Group controlId="programme-passage">
          <Form.Label>{t("frame.what-follows-the-steps")}</Form.Label>
          <Form.Select
            value={programme.passage}
            onChange={(e) => set({ passage: globalThis.Number(e.target.value) })}
          >
            {passages.map((p) => (
              <option key={p.passage} value={p.passage}>
                {p.passage}. {p.name} {p.says}
              </option>
            ))}
          </Form.Select>
        </Form.Group>
      </div>
      <div className="d-flex flex-wrap gap-3 mt-3">
        <Form.Group controlId="programme-days">
          <Form.Label>{t("frame.days-between-classes")}</Form.Label>
          <Number value={programme.days} least={1} most={60} onChange={(days) => set({ days })} />
        </Form.Group>
        <Form.Group controlId="programme-by">
          <Form.Label>{t("frame.move-to-the-next-step")}</Form.Label>
          <Form.Select
            value={by}
            onChange={(e) => set({ by: e.target.value as Programme["by"], times: programme.times || 3 })}
          >
            <option value="date">{t("frame.after-so-many-classes")}</option>
            <option value="led">{t("frame.after-classes-led-as-planned")}</option>
          </Form.Select>
        </Form.Group>
        {by === "led" && (
          <Form.Group controlId="programme-times">
            <Form.Label>{t("frame.times")}</Form.Label>
            <Number value={programme.times} least={1} most={9} onChange={(times) => set({ times })} />
          </Form.Group>
        )}
        <Form.Group controlId="programme-missed">
          <Form.Label>{t("frame.after-a-missed-class")}</Form.Label>
          <Form.Select
            value={programme.missed}
            onChange={(e) => set({ missed: e.target.value as Programme["missed"] })}
          >
            <option value="wait">{t("frame.it-waits")}</option>
            <option value="back">{t("frame.one-step-back")}</option>
            <option value="on">{t("frame.move-to-the-next-step-2")}</option>
          </Form.Select>
        </Form.Group>
        <Form.Group controlId="programme-eased">
          <Form.Label>{t("frame.after-an-eased-class")}</Form.Label>
          <Form.Select
            value={programme.eased}
            onChange={(e) => set({ eased: e.target.value as Programme["eased"] })}
          >
            <option value="wait">{t("frame.it-waits")}</option>
            <option value="back">{t("frame.one-step-back")}</option>
          </Form.Select>
        </Form.Group>
        <Form.Group controlId="programme-gap">
          <Form.Label>{t("frame.after-a-gap")}</Form.Label>
          <div className="d-flex gap-2 align-items-center">
            <Number
              value={programme.gap}
              least={0}
              most={365}
              onChange={(gap) => set({ gap, repeat: programme.repeat || 1 })}
            />
            {t("frame.days")}
          </div>
          <Form.Text>{t("frame.it-goes")}</Form.Text>
        </Form.Group>
        {programme.gap > 0 && (
          <Form.Group controlId="programme-repeat">
            <Form.Label>{t("frame.steps-to-repeat")}</Form.Label>
            <Number value={programme.repeat} least={1} most={60} onChange={(repeat) => set({ repeat })} />
          </Form.Group>
        )}
        <Form.Group controlId="programme-ceiling">
          <Form.Label>{t("frame.never-more-than")}</Form.Label>
          <div className="d-flex gap-2 align-items-center">
            <Number value={programme.ceiling} least={0} most={60} onChange={(ceiling) => set({ ceiling })} />
            {t("frame.min")}
          </div>
          <Form.Text>{t("frame.for-no-ceiling-the-slot")}</Form.Text>
        </Form.Group>
      </div>
      <fieldset className="steps mt-3">
        <legend>{t("frame.as-you-would-type", { steps: steps.length, steps2: steps.length === 1 })}</legend>
        {steps.map((step, i) => (
          <StepRow
            key={i}
            number={i + 1}
            step={step}
            classes={by === "date"}
            onChange={(next) => set({ steps: steps.map((s, n) => (n === i ? next : s)) })}
            onRemove={steps.length > 1 ? () => set({ steps: steps.filter((_, n) => n !== i) }) : undefined}
          />
        ))}
        <Button
          size="sm"
          variant="outline-primary"
          disabled={steps.length >= 60}
          onClick={() => set({ steps: [...steps, { says: "", classes: 1, rest: 0 }] })}
        >
          {t("frame.one-more-step")}
        </Button>
        <Form.Text className="d-block">{t("frame.x6-30-strokes")}</Form.Text>
      </fieldset>
    </>
  );
}

type RowProps = {
  number: number;
  step: Step;
  classes: boolean;
  onChange: (step: Step) => void;
  onRemove?: () => void;
};

function StepRow({ number, step, classes, onChange, onRemove }: RowProps) {
  const [picking, setPicking] = useState(false);
  const whole = step.plan !== undefined;
  const passageOnly = () => onChange({ says: "", classes: step.classes, rest: step.rest });
  return (
    <div className="step">
      <span aria-hidden>{number}</span>
      <Form.Control
        size="sm"
        aria-label={whole ? t("frame.name-of-step-a-whole-class", { number }) : t("frame.step-2", { number })}
        className={whole ? "whole" : undefined}
        value={step.says}
        maxLength={200}
        required
        onChange={(e) => onChange({ ...step, says: e.target.value })}
      />
      {classes && (
        <label>
          <Number
            value={step.classes}
            least={1}
            most={60}
            onChange={(n) => onChange({ ...step, classes: n })}
          />
          {step.classes === 1 ? t("frame.class-2") : t("frame.classes")}
        </label>
      )}
      <span className="rest">
        {t("frame.rest")}
        <Number
          label={t("frame.days-of-rest-after-step", { number })}
          value={step.rest}
          least={0}
          most={60}
          onChange={(rest) => onChange({ ...step, rest })}
        />
      </span>
      {whole ? (
        <Button size="sm" variant="link" onClick={passageOnly}>
          {t("frame.change-a-passage-only")}
        </Button>
      ) : (
        <Button
          size="sm"
          variant="link"
          aria-label={t("frame.whole-class-for-step", { number })}
          onClick={() => setPicking(true)}
        >
          {t("frame.whole-class")}
        </Button>
      )}
      {onRemove && (
        <Button
          size="sm"
          variant="link"
          aria-label={t("frame.leave-step-out", { number })}
          onClick={onRemove}
        >
          ×
        </Button>
      )}
      {picking && (
        <PickPlan
          onPick={({ title, document }) => {
            onChange({ ...step, says: title || t("frame.untitled"), plan: document });
            setPicking(false);
          }}
          onClose={() => setPicking(false)}
        />
      )}
    </div>
  );
}

type NumberProps = {
  label?: string;
  value: number;
  least: number;
  most: number;
  onChange: (value: number) => void;
};

/** Number is a whole number within bounds, with the id of its group. */
function Number({ label, value, least, most, onChange }: NumberProps) {
  return (
    <Form.Control
      type="number"
      aria-label={label}
      className="number"
      min={least}
      max={most}
      required
      value={value}
      onChange={(e) => onChange(globalThis.Number(e.target.value))}
    />
  );
}
