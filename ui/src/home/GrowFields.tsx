import { Button, Form } from "react-bootstrap";
import type { HomeGrowth, HomeStep, HomeStepRead } from "../wire/contract";
import { t, text } from "../language/text";
import { daysOf } from "../frame/dialogs/stretches";

type Props = {
  steps: HomeStep[];
  /** the ways to grow that are proposed */
  grows: HomeGrowth[];
  /** the steps as they are understood; of what was typed a moment ago */
  read: HomeStepRead[];
  onChange: (steps: HomeStep[]) => void;
};

const most = 20;
const units = { day: "home.unit-days", week: "home.unit-weeks", month: "home.unit-months" } as const;
const own = "own";

/** GrowFields is how a home practice grows over days, weeks or months: proposed, and freely changed. */
export function GrowFields({ steps, grows, read, onChange }: Props) {
  const chosen = steps.length === 0 ? "" : (grows.find((g) => same(g.steps, steps))?.id ?? own);
  const choose = (id: string) => {
    const grow = grows.find((g) => g.id === id);
    if (grow) onChange(grow.steps);
    else onChange(id === own ? [...(steps.length > 0 ? steps : [fresh, { ...fresh, for: 0 }])] : []);
  };
  return (
    <fieldset className="grow">
      <Form.Group controlId="home-grows">
        <Form.Label>{t("home.how-it-grows")}</Form.Label>
        <Form.Select value={chosen} onChange={(e) => choose(e.target.value)}>
          <option value="">{t("home.the-same-every-day")}</option>
          {grows.map((g) => (
            <option key={g.id} value={g.id}>
              {text(g.name)}
            </option>
          ))}
          <option value={own}>{t("home.steps-of-my-own")}</option>
        </Form.Select>
      </Form.Group>
      {steps.map((step, i) => (
        <StepRow
          key={i}
          number={i + 1}
          step={step}
          last={i + 1 === steps.length}
          read={read[i]?.typed === step.says.trim() ? read[i] : undefined}
          known={read.slice(0, i).flatMap((r) => r.care.map(text))}
          onChange={(next) => onChange(steps.map((s, n) => (n === i ? next : s)))}
          onRemove={() => onChange(steps.filter((_, n) => n !== i))}
        />
      ))}
      {steps.length > 0 && (
        <>
          <Button
            size="sm"
            variant="outline-primary"
            disabled={steps.length >= most}
            onClick={() => onChange([...steps.map(ended), { ...fresh, for: 0 }])}
          >
            {t("frame.one-more-step")}
          </Button>
          <Form.Text className="d-block">{t("home.as-you-would-type-it-x3")}</Form.Text>
        </>
      )}
    </fieldset>
  );
}

const fresh: HomeStep = { says: "", for: 1, unit: "week" };

/** ended is a step that is no longer the last: it has an end. */
const ended = (step: HomeStep) => (step.for === 0 ? { ...step, for: 1 } : step);

function same(a: HomeStep[], b: HomeStep[]): boolean {
  return (
    a.length === b.length &&
    a.every((s, i) => s.says === b[i]!.says && s.for === b[i]!.for && s.unit === b[i]!.unit)
  );
}

type RowProps = {
  number: number;
  step: HomeStep;
  last: boolean;
  read: HomeStepRead | undefined;
  /** what the steps before say to be careful of: it is not said again */
  known: string[];
  onChange: (step: HomeStep) => void;
  onRemove: () => void;
};

function StepRow({ number, step, last, read, known, onChange, onRemove }: RowProps) {
  const unit = step.unit as keyof typeof units;
  return (
    <div className="step">
      <Form.Control
        size="sm"
        className="for"
        type="number"
        aria-label={t("home.step-lasts", { number })}
        min={last ? 0 : 1}
        max={90}
        required
        value={step.for}
        onChange={(e) => onChange({ ...step, for: Math.floor(Number(e.target.value)) || 0 })}
      />
      <Form.Select
        size="sm"
        className="unit"
        aria-label={t("home.unit-of-step", { number })}
        value={step.unit}
        onChange={(e) => onChange({ ...step, unit: e.target.value })}
      >
        {Object.entries(units).map(([one, many]) => (
          <option key={one} value={one}>
            {step.for === 1
              ? t(one === "day" ? "home.unit-day" : one === "week" ? "home.unit-week" : "home.unit-month")
              : t(many)}
          </option>
        ))}
      </Form.Select>
      <Form.Control
        size="sm"
        className="says"
        aria-label={t("frame.step-2", { number })}
        placeholder="x3, 4:4:8 x6, 7 min"
        value={step.says}
        maxLength={200}
        required
        isInvalid={read?.wrong !== null && read?.wrong !== undefined}
        onChange={(e) => onChange({ ...step, says: e.target.value })}
      />
      <Button size="sm" variant="link" aria-label={t("frame.leave-step-out", { number })} onClick={onRemove}>
        ×
      </Button>
      <p className="understood" aria-live="polite">
        {step.for === 0 && last && t("home.until-you-say-otherwise")}
        {step.for > 1 && unit === "month" && `${t("home.calendar-months", { months: step.for })}. `}
        {read && !read.wrong && `${capital(daysOf(read))}: ${read.says}`}
        {read?.wrong && <span className="text-danger">{text(read.wrong)}</span>}
        {read?.care
          .map(text)
          .filter((care) => !known.includes(care))
          .map((care) => (
            <span key={care} className="care">
              {care}
            </span>
          ))}
      </p>
    </div>
  );
}

const capital = (words: string) => words.charAt(0).toUpperCase() + words.slice(1);
