import chevronUp from "bootstrap-icons/icons/chevron-up.svg?raw";
import trash from "bootstrap-icons/icons/trash.svg?raw";
import { Button, Form } from "react-bootstrap";
import known from "../../phases.json";
import { text } from "../frame/editing/fields";
import { Icon } from "../frame/shell/Icon";
import { rich, t, wordOf } from "../language/text";

export type StepDoc = {
  phase?: string;
  counts?: unknown;
  through?: string;
  parts?: string[];
  move?: string[];
};

type Props = {
  kind: string;
  steps: (StepDoc | string)[];
  onChange: (steps: (StepDoc | string)[]) => void;
};

const phases = () => known.ofABreath.map((phase): [string, string] => [phase, wordOf("phase", phase)]);
const ways = (): [string, string][] => [
  ["airway", t("practices.as-planned")],
  ["both", t("practices.both-nostrils")],
  ["left", t("practices.left")],
  ["right", t("practices.right")],
  ["start", t("practices.starting-side")],
  ["other", t("practices.other-side")],
  ["mouth", t("practices.mouth")],
];
/** roleOf is the letter of a phase's counts in a figure: a of the inhale to d of the empty hold. */
const roleOf = (phase: string) => "abcd"[known.ofABreath.indexOf(phase)];
const roles = () =>
  known.ofABreath.map((phase): [string, string] => [
    roleOf(phase)!,
    t("practices.as", { phase: wordOf("phase", phase), phase2: roleOf(phase) }),
  ]);
const moves = (phase?: string) => known.moving.includes(phase ?? "");

/**
 * FigureEditor builds one round out of phases: what, how long, which way the air goes, and what each count is called. A counted
 * round can be written as lines too, which is the shortest way to a sequence of movements.
 */
export function FigureEditor({ kind, steps, onChange }: Props) {
  if (kind === "strokes") return <p className="text-secondary">{t("practices.one-round-is-one-set")}</p>;
  const table = steps.filter((step) => typeof step !== "string");
  if (table.length < steps.length) return <FigureLines steps={steps} onChange={onChange} />;
  return <FigureTable kind={kind} steps={table} onChange={onChange} />;
}

/** asLine writes a step as the application reads one: "in right foot back | left foot back". */
export function asLine(step: StepDoc | string): string {
  if (typeof step === "string") return step;
  const word = { inhale: "in", exhale: "out" }[step.phase ?? ""] ?? step.phase ?? "";
  const own = typeof step.counts === "number" || /^\d+$/.test(text(step.counts)) ? text(step.counts) : "";
  return [word, (step.move ?? step.parts ?? []).join(" | "), own].filter(Boolean).join(" ");
}

/** FigureLines is one round as lines. */
function FigureLines({ steps, onChange }: Omit<Props, "kind">) {
  return (
    <Form.Group className="figure mb-3" controlId="figure-lines">
      <Form.Label>{t("practices.one-round-a-phase-a-line")}</Form.Label>
      <Form.Control
        as="textarea"
        rows={Math.max(4, steps.length + 1)}
        spellCheck={false}
        value={steps.map(asLine).join("\n")}
        onChange={(e) => onChange(e.target.value.split("\n"))}
      />
      <Form.Text>
        {rich("practices.in-out-hold-or-empty-then", { kbd: <kbd>in right foot back | left foot back</kbd> })}
      </Form.Text>
    </Form.Group>
  );
}

type TableProps = { kind: string; steps: StepDoc[]; onChange: Props["onChange"] };

function FigureTable({ kind, steps, onChange }: TableProps) {
  const change = (i: number, part: Partial<StepDoc>) => {
    const next = { ...steps[i], ...part };
    if (moves(next.phase)) next.through ??= "airway";
    else delete next.through;
    if (next.parts?.length === 0) delete next.parts;
    if (next.move?.length === 0) delete next.move;
    onChange(steps.with(i, next));
  };
  const move = (i: number, by: number) => {
    const next = [...steps];
    const [step] = next.splice(i, 1);
    next.splice(i + by, 0, step!);
    onChange(next);
  };
  return (
    <fieldset className="figure mb-3">
      <legend>{t("practices.one-round")}</legend>
      <ol>
        {steps.map((step, i) => (
          <li key={i}>
            <Pick
              label={t("practices.phase", { i: i + 1 })}
              value={step.phase ?? ""}
              words={phases()}
              onChange={(phase) => change(i, { phase, counts: roleOf(phase) })}
            />
            {kind === "open" ? (
              <span className="text-secondary">{t("practices.until-you-go")}</span>
            ) : (
              <Counts
                kind={kind}
                label={t("practices.counts-of-phase", { i: i + 1 })}
                value={step.counts}
                onChange={(counts) => change(i, { counts })}
              />
            )}
            {moves(step.phase) ? (
              <Pick
                label={t("practices.airway-of-phase", { i: i + 1 })}
                value={step.through ?? ""}
                words={ways()}
                onChange={(through) => change(i, { through })}
              />
            ) : (
              <span className="way" />
            )}
            {step.move ? (
              <Form.Control
                size="sm"
                className="parts"
                aria-label={t("practices.movement-of-phase", { i: i + 1 })}
                value={step.move.join(" | ")}
                onChange={(e) => change(i, { move: e.target.value.split("|").map((p) => p.trimStart()) })}
              />
            ) : (
              <Form.Control
                size="sm"
                className="parts"
                aria-label={t("practices.parts-of-phase", { i: i + 1 })}
                placeholder={t("practices.a-word-a-count")}
                value={(step.parts ?? []).join(", ")}
                onChange={(e) =>
                  change(i, {
                    parts: e.target.value === "" ? [] : e.target.value.split(",").map((p) => p.trimStart()),
                  })
                }
              />
            )}
            <Button
              variant="link"
              size="sm"
              aria-label={t("practices.move-phase-up", { i: i + 1 })}
              disabled={i === 0}
              onClick={() => move(i, -1)}
            >
              <Icon of={chevronUp} />
            </Button>
            <Button
              variant="link"
              size="sm"
              aria-label={t("practices.remove-phase", { i: i + 1 })}
              onClick={() => onChange(steps.toSpliced(i, 1))}
            >
              <Icon of={trash} />
            </Button>
          </li>
        ))}
      </ol>
      <Button
        variant="link"
        size="sm"
        onClick={() =>
          onChange([
            ...steps,
            { phase: known.ofABreath[0], counts: kind === "fixed" ? 4 : "a", through: "airway" },
          ])
        }
      >
        {t("practices.phase-2")}
      </Button>
      {kind === "counted" && (
        <Button variant="link" size="sm" onClick={() => onChange(steps.map(asLine))}>
          {t("practices.write-as-lines")}
        </Button>
      )}
    </fieldset>
  );
}

/** Counts of a phase: those of a:b:c:d that a plan gives, or a number of its own. */
function Counts(props: { kind: string; label: string; value: unknown; onChange: (counts: unknown) => void }) {
  const value = text(props.value);
  const isRole = roles().some(([role]) => role === value);
  return (
    <span className="d-flex gap-1">
      {props.kind === "counted" && (
        <Pick
          label={props.label}
          value={isRole ? value : "n"}
          words={[...roles(), ["n", t("practices.always")]]}
          onChange={(to) => props.onChange(to === "n" ? 4 : to)}
        />
      )}
      {!isRole && (
        <Form.Control
          size="sm"
          className="n"
          inputMode="numeric"
          aria-label={t("practices.number", { label: props.label })}
          value={value}
          onChange={(e) =>
            props.onChange(/^\d+$/.test(e.target.value) ? Number(e.target.value) : e.target.value)
          }
        />
      )}
    </span>
  );
}

type PickProps = {
  label: string;
  value: string;
  words: [string, string][];
  onChange: (value: string) => void;
};

function Pick({ label, value, words, onChange }: PickProps) {
  return (
    <Form.Select size="sm" aria-label={label} value={value} onChange={(e) => onChange(e.target.value)}>
      {!words.some(([word]) => word === value) && <option value={value}>{value}</option>}
      {words.map(([word, shown]) => (
        <option key={word} value={word}>
          {shown}
        </option>
      ))}
    </Form.Select>
  );
}
