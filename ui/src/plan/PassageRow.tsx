import chevronDown from "bootstrap-icons/icons/chevron-down.svg?raw";
import chevronUp from "bootstrap-icons/icons/chevron-up.svg?raw";
import copy from "bootstrap-icons/icons/copy.svg?raw";
import exclamationTriangle from "bootstrap-icons/icons/exclamation-triangle.svg?raw";
import scissors from "bootstrap-icons/icons/scissors.svg?raw";
import trash from "bootstrap-icons/icons/trash.svg?raw";
import { useSortable } from "@dnd-kit/sortable";
import { CSS } from "@dnd-kit/utilities";
import { useState } from "react";
import { Button, Form } from "react-bootstrap";
import type { Change, FieldError, PassageSummary } from "../wire/contract";
import { Icon } from "../frame/shell/Icon";
import { Findings } from "../frame/care/care";
import { clock, number, timeOfDay } from "../player/format";
import { Checked } from "./Checked";
import { Details } from "./Details";
import { text } from "../frame/editing/fields";
import type { PassageDoc } from "../wire/plan";
import { t, text as say } from "../language/text";

type Props = {
  id: string; // stays with the passage when it is moved
  number: number;
  doc: PassageDoc;
  summary: PassageSummary | undefined;
  errors: FieldError[];
  starts: number | null;
  open: boolean;
  last: boolean;
  onToggle: () => void;
  onChange: (doc: PassageDoc) => void;
  onAsk: (change: Change) => Promise<string | null>; // of this passage
  onMove: (by: number) => void;
  onDuplicate: () => void;
  onRemove: () => void;
};

/** PassageRow is one passage of the running order: edited in place, its numbers beside it. */
export function PassageRow(props: Props) {
  const { doc, summary } = props;
  const [typed, setTyped] = useState<string | null>(null);
  const [problem, setProblem] = useState("");
  const sortable = useSortable({ id: props.id });
  const { attributes, listeners, setNodeRef, transform, transition, isDragging } = sortable;
  const name = text(doc.title) || (summary?.name ?? ""); // the title is there before the answer with the numbers
  const write = async (value: string) => {
    setTyped(value);
    const why = await props.onAsk({ do: "short", text: value });
    if (why !== null) setProblem(why); // else there is a newer one to come
  };
  const done = () => {
    if (problem === "") setTyped(null); // what was not understood stays to be mended
  };
  return (
    // Its fields and buttons are what has the focus; the keys that move it are heard here for all of them.
    // eslint-disable-next-line jsx-a11y/no-noninteractive-element-interactions
    <div
      ref={setNodeRef}
      style={{ transform: CSS.Translate.toString(transform), transition }}
      className={`passage ${props.open ? "open" : ""} ${isDragging ? "dragged" : ""}`}
      role="listitem"
      onKeyDown={(e) => {
        const by = e.altKey ? { ArrowUp: -1, ArrowDown: 1 }[e.key] : undefined;
        if (by === undefined || (by < 0 && props.number === 1) || (by > 0 && props.last)) return;
        e.preventDefault();
        props.onMove(by);
      }}
    >
      <div className="line">
        <button
          type="button"
          className="nr"
          {...attributes}
          {...listeners}
          aria-label={t("plan.passage-drag-or-space", { number: props.number, name })}
        >
          {props.number}
        </button>
        <span className="at">{at(props.starts, summary)}</span>
        <Form.Control
          className="name"
          aria-label={t("plan.title-of-passage", { number: props.number })}
          placeholder={name}
          title={doc.type === "talk" ? t("plan.the-room-reads-this-heading", { name }) : name}
          value={text(doc.title)}
          onChange={(e) => {
            const next: PassageDoc = { ...doc, title: e.target.value };
            if (e.target.value === "") delete next.title;
            props.onChange(next);
          }}
        />
        <Form.Control
          className="short"
          aria-label={t("plan.counts-length-and-tempo", { name })}
          spellCheck={false}
          value={typed ?? summary?.short ?? ""}
          isInvalid={problem !== ""}
          onChange={(e) => void write(e.target.value)}
          onBlur={done}
        />
        <span className="length">{clock(summary?.length_ms ?? 0)}</span>
        <Numbers summary={summary} script={doc.type === "practice" ? "" : text(doc.script)} />
        <span className="tools">
          <Tool
            icon={chevronUp}
            label={t("plan.move-up", { name })}
            disabled={props.number === 1}
            onClick={() => props.onMove(-1)}
          />
          <Tool
            icon={chevronDown}
            label={t("plan.move-down", { name })}
            disabled={props.last}
            onClick={() => props.onMove(1)}
          />
          <Tool
            icon={scissors}
            label={t("plan.split-in-two", { name })}
            onClick={() => void props.onAsk({ do: "split" })}
          />
          <Tool icon={copy} label={t("plan.duplicate", { name })} onClick={props.onDuplicate} />
          <Tool icon={trash} label={t("plan.remove", { name })} onClick={props.onRemove} />
          <Button
            variant="link"
            size="sm"
            aria-expanded={props.open}
            onClick={props.onToggle}
            aria-label={t("plan.of-2", { open: props.open, name })}
          >
            {props.open ? t("plan.less") : t("plan.more-2")}
          </Button>
        </span>
      </div>
      {problem && <p className="wrong">{problem}</p>}
      {props.errors.map((error) => (
        <p className="wrong" key={error.field + error.given}>
          {t("plan.allowed", {
            field: error.field,
            given: error.given === "" ? t("plan.missing") : t("plan.is-not-allowed", { given: error.given }),
            allowed: say(error.allowed),
          })}
        </p>
      ))}
      {summary && <Checked doc={doc} summary={summary} onChange={props.onChange} />}
      {summary && summary.findings.length > 0 && (
        <div className="cared">
          <Findings list={summary.findings} />
          {summary.gentler && summary.lanes[0]?.beside === "breathe" && doc.beside === undefined && (
            <Button
              size="sm"
              variant="outline-primary"
              onClick={() => props.onChange({ ...doc, beside: "breathe" })}
            >
              {t("plan.a-gentler-lane-beside")}
            </Button>
          )}
          {summary.gentler && (
            <Button size="sm" variant="outline-primary" onClick={() => void props.onAsk({ do: "gentle" })}>
              {t("plan.use-the-gentle-variant")}
            </Button>
          )}
        </div>
      )}
      {props.open && (
        <Details
          doc={doc}
          summary={summary}
          starts={props.starts}
          onChange={props.onChange}
          onAsk={props.onAsk}
        />
      )}
    </div>
  );
}

function at(starts: number | null, summary: PassageSummary | undefined): string {
  if (!summary) return "";
  return starts === null ? clock(summary.start_ms) : timeOfDay(starts + summary.start_ms);
}

/** Numbers is what a passage amounts to, what tells it from others like it, and what the teacher wants to say in a talk. */
function Numbers({ summary, script }: { summary: PassageSummary | undefined; script: string }) {
  if (!summary) return <span className="numbers" />;
  const strong = summary.cautions.filter((c) => c.strong).length;
  return (
    <span className="numbers">
      {summary.rounds > 0 && (
        <span>
          {t("plan.of-s-2", {
            rounds: summary.rounds === 1 ? t("plan.round") : t("plan.rounds", { rounds: summary.rounds }),
            round: number(summary.round_ms / 1000),
          })}
        </span>
      )}
      {summary.own_pace && <span>{t("plan.own-pace-2")}</span>}
      {summary.again_on && <span>{t("plan.a-line-that-comes-round-again")}</span>}
      {summary.per_minute > 0 && (
        <span>{t("plan.breaths-a-min", { perMinute: number(summary.per_minute) })}</span>
      )}
      {summary.true_ratio !== "" && summary.true_ratio !== summary.counts && (
        <span className="attention">{t("plan.runs-as", { trueRatio: summary.true_ratio })}</span>
      )}
      {summary.longest_hold_ms > 0 && (
        <span>{t("plan.longest-hold-s", { longestHold: number(summary.longest_hold_ms / 1000) })}</span>
      )}
      {summary.held_ms > 0 && <span>{t("plan.in-holds", { held: clock(summary.held_ms) })}</span>}
      {summary.says.map((words) => (
        <span className="says" key={words}>
          {words}
        </span>
      ))}
      {script !== "" && (
        <span className="script" title={t("plan.only-you-read", { script })}>
          “{script}”
        </span>
      )}
      {summary.opening.length > 0 && (
        <span>{t("plan.first", { value: summary.opening.map(say).join(", ") })}</span>
      )}
      {summary.closing.length > 0 && (
        <span>{t("plan.then-2", { value: summary.closing.map(say).join(", ") })}</span>
      )}
      {strong > 0 && (
        <span className="attention">
          <Icon of={exclamationTriangle} />{" "}
          {strong === 1 ? t("plan.caution") : t("plan.cautions", { strong })}
        </span>
      )}
    </span>
  );
}

function Tool({
  icon,
  label,
  ...rest
}: {
  icon: string;
  label: string;
  disabled?: boolean;
  onClick: () => void;
}) {
  return (
    <Button variant="link" size="sm" aria-label={label} title={label} {...rest}>
      <Icon of={icon} />
    </Button>
  );
}
