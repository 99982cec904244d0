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
import { text as say } from "../language/text";

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
          aria-label={`Passage ${props.number}, ${name}: drag, or space and the arrow keys, to move`}
        >
          {props.number}
        </button>
        <span className="at">{at(props.starts, summary)}</span>
        <Form.Control
          className="name"
          aria-label={`Title of passage ${props.number}`}
          placeholder={name}
          title={doc.type === "talk" ? `${name}: the room reads this heading` : name}
          value={text(doc.title)}
          onChange={(e) => {
            const next: PassageDoc = { ...doc, title: e.target.value };
            if (e.target.value === "") delete next.title;
            props.onChange(next);
          }}
        />
        <Form.Control
          className="short"
          aria-label={`Counts, length and tempo of ${name}`}
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
            label={`Move ${name} up`}
            disabled={props.number === 1}
            onClick={() => props.onMove(-1)}
          />
          <Tool
            icon={chevronDown}
            label={`Move ${name} down`}
            disabled={props.last}
            onClick={() => props.onMove(1)}
          />
          <Tool
            icon={scissors}
            label={`Split ${name} in two`}
            onClick={() => void props.onAsk({ do: "split" })}
          />
          <Tool icon={copy} label={`Duplicate ${name}`} onClick={props.onDuplicate} />
          <Tool icon={trash} label={`Remove ${name}`} onClick={props.onRemove} />
          <Button
            variant="link"
            size="sm"
            aria-expanded={props.open}
            onClick={props.onToggle}
            aria-label={`${props.open ? "Less" : "More"} of ${name}`}
          >
            {props.open ? "less" : "more"}
          </Button>
        </span>
      </div>
      {problem && <p className="wrong">{problem}</p>}
      {props.errors.map((error) => (
        <p className="wrong" key={error.field + error.given}>
          {error.field}: {error.given === "" ? "missing" : `${error.given} is not allowed`}. Allowed:{" "}
          {say(error.allowed)}.
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
              A gentler lane beside
            </Button>
          )}
          {summary.gentler && (
            <Button size="sm" variant="outline-primary" onClick={() => void props.onAsk({ do: "gentle" })}>
              Use the gentle variant
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
          {summary.rounds === 1 ? "1 round" : `${summary.rounds} rounds`} of {number(summary.round_ms / 1000)}{" "}
          s
        </span>
      )}
      {summary.own_pace && <span>own pace</span>}
      {summary.again_on && <span>a line that comes round again</span>}
      {summary.per_minute > 0 && <span>{number(summary.per_minute)} breaths a min</span>}
      {summary.true_ratio !== "" && summary.true_ratio !== summary.counts && (
        <span className="attention">runs as {summary.true_ratio}</span>
      )}
      {summary.longest_hold_ms > 0 && <span>longest hold {number(summary.longest_hold_ms / 1000)} s</span>}
      {summary.held_ms > 0 && <span>{clock(summary.held_ms)} in holds</span>}
      {summary.says.map((words) => (
        <span className="says" key={words}>
          {{ wait: "waits for you", keep: "kept", "the point": "the point of the class" }[words] ?? words}
        </span>
      ))}
      {script !== "" && (
        <span className="script" title={`Only you read this: ${script}`}>
          “{script}”
        </span>
      )}
      {summary.opening.length > 0 && <span>first {summary.opening.map(say).join(", ")}</span>}
      {summary.closing.length > 0 && <span>then {summary.closing.map(say).join(", ")}</span>}
      {strong > 0 && (
        <span className="attention">
          <Icon of={exclamationTriangle} /> {strong === 1 ? "caution" : `${strong} cautions`}
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
