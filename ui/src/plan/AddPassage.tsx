import { Fragment, type KeyboardEvent, useId, useRef, useState } from "react";
import { Button, Form, InputGroup } from "react-bootstrap";
import type { LineProblem, TypedLine, TypedPassage } from "../wire/contract";
import { assumedMark, doubtText, factText } from "../language/typed";
import { useEdited } from "../frame/editing/useEdited";
import { clock } from "../player/format";
import { RoundSheet } from "./RoundSheet";
import { OwnLines } from "./OwnLines";
import { useTyped } from "./useTyped";
import { rich, t, text } from "../language/text";

type Props = { plan: number; first: boolean; group: number; onAdd: (text: string) => Promise<string | null> };

/**
 * AddPassage adds what is typed as a teacher says it, a line or several, and keeps what was not understood. What it would be,
 * and how the line may go on, is shown while one types.
 */
export function AddPassage({ plan, first, group, onAdd }: Props) {
  const { draft: text, setDraft: setText } = useEdited("", `add ${plan}`);
  const [problem, setProblem] = useState("");
  const [chosen, setChosen] = useState(-1); // of the completions
  const [closed, setClosed] = useState(false); // they were put away
  const field = useRef<HTMLTextAreaElement>(null);
  const list = useId();
  const typed = useTyped(text, group);
  const completions = closed ? [] : (typed?.completions ?? []).filter((c) => c.line !== lastLine(text));

  const type = (next: string) => {
    setText(next);
    setProblem("");
    setChosen(-1);
    setClosed(false);
  };
  const complete = (line: string) => {
    type(text.slice(0, text.length - lastLine(text).length) + line);
    setClosed(true);
    field.current?.focus();
  };
  const add = async () => {
    const added = text;
    const why = await onAdd(added);
    setProblem(why ?? t("plan.another-change-was-being-made-press"));
    if (why !== "") return;
    const since = field.current?.value ?? ""; // the next line may have been begun meanwhile
    type(since.startsWith(added) ? since.slice(added.length).trimStart() : since);
  };
  const onKey = (e: KeyboardEvent) => {
    const picked = completions[chosen];
    if (e.key === "ArrowDown" && completions.length > 0) setChosen((chosen + 1) % completions.length);
    else if (e.key === "ArrowUp" && chosen >= 0) setChosen(chosen - 1);
    else if (e.key === "Tab" && !e.shiftKey && completions.length > 0)
      complete((picked ?? completions[0]!).line);
    else if (e.key === "Enter" && !e.shiftKey && picked) complete(picked.line);
    else if (e.key === "Enter" && !e.shiftKey) void add();
    else if (e.key === "Escape" && completions.length > 0) setClosed(true);
    else if (e.key !== "F8" || !selectDoubt(field.current, typed?.lines ?? [])) return;
    e.preventDefault();
  };
  const mend = (line: number, { from, to }: LineProblem, word: string) => {
    const lines = text.split("\n");
    const given = lines[line - 1] ?? "";
    lines[line - 1] = given.slice(0, from) + word + given.slice(to);
    type(lines.join("\n"));
    field.current?.focus();
  };
  return (
    <Form
      className="add mt-2"
      onSubmit={(e) => {
        e.preventDefault();
        void add();
      }}
    >
      <InputGroup>
        <InputGroup.Text as="label" htmlFor="add">
          {t("plan.add")}
        </InputGroup.Text>
        <Form.Control
          as="textarea"
          id="add"
          ref={field}
          rows={Math.min(12, Math.max(1, text.split("\n").length))}
          autoFocus={first}
          autoComplete="off"
          spellCheck={false}
          aria-autocomplete="list"
          aria-controls={list}
          aria-activedescendant={chosen >= 0 ? `${list}-${chosen}` : undefined}
          aria-describedby={`${list}-read`}
          placeholder={t("plan.even-breath-4-4-x6-three")}
          value={text}
          isInvalid={problem !== ""}
          onChange={(e) => type(e.target.value)}
          onKeyDown={onKey}
        />
        <Button type="submit" variant="outline-primary">
          {t("plan.add")}
        </Button>
        <Form.Control.Feedback type="invalid" className="lines">
          {problem}
        </Form.Control.Feedback>
      </InputGroup>
      <div className="below">
        <ul role="listbox" id={list} className="completions" aria-label={t("plan.suggestions")}>
          {completions.map((c, i) => (
            // The field has the focus and the keys; a click does the same.
            // eslint-disable-next-line jsx-a11y/click-events-have-key-events
            <li
              key={c.line}
              id={`${list}-${i}`}
              role="option"
              aria-selected={i === chosen}
              onClick={() => complete(c.line)}
            >
              {c.line} {c.says !== "" && <small>{c.says}</small>}
            </li>
          ))}
        </ul>
        <div className="read" id={`${list}-read`} aria-live="polite">
          {typed?.lines.map((line) => (
            <Line key={line.line} line={line} alone={typed.lines.length === 1} onMend={mend} />
          ))}
        </div>
      </div>
      <p className="keyhelp">
        <kbd>Enter</kbd>{" "}
        {rich("plan.adds-completes-begins-another-line-several", {
          kbd: <kbd>Tab</kbd>,
          kbd2: <kbd>Shift</kbd>,
          kbd3: <kbd>Enter</kbd>,
          kbd4: <kbd>F8</kbd>,
        })}
      </p>
    </Form>
  );
}

/** selectDoubt selects the next piece of the text, after the cursor, that is doubtful or not understood. */
function selectDoubt(field: HTMLTextAreaElement | null, lines: TypedLine[]): boolean {
  if (!field) return false;
  const starts = field.value.split("\n").reduce<number[]>((all, _, i, split) => {
    all.push(i === 0 ? 0 : all[i - 1]! + split[i - 1]!.length + 1);
    return all;
  }, []);
  const places = lines.flatMap((line) => {
    const problems = [line.problem, ...line.passages.flatMap((one) => one.doubts.map((d) => d.problem))];
    const start = starts[line.line - 1] ?? 0;
    return problems.filter((p) => p !== null).map(({ from, to }) => [start + from, start + to] as const);
  });
  const next = places.find(([from]) => from > field.selectionStart) ?? places[0];
  if (next) field.setSelectionRange(next[0], next[1]);
  return next !== undefined;
}

function lastLine(text: string): string {
  return text.slice(text.lastIndexOf("\n") + 1);
}

type LineProps = {
  line: TypedLine;
  alone: boolean;
  onMend: (line: number, problem: LineProblem, word: string) => void;
};

/** Line is what one line would be, or what is wrong with it. */
function Line({ line, alone, onMend }: LineProps) {
  const { problem, passages } = line;
  if (problem)
    return (
      <p className="wrong">
        {!alone && t("plan.line", { line: line.line })}
        {text(problem.say)}. <Nearest problem={problem} onPick={(word) => onMend(line.line, problem, word)} />
      </p>
    );
  return passages.map((one, i) => (
    <div className="would" key={i}>
      <Understood {...one} />
      {one.doubts.map(({ kind, problem }) => (
        <p className="doubt" key={`${problem.from} ${kind}`}>
          {problem.say.id === "line.word-refused" && `${text(problem.say)}. `}
          {doubtText(kind, problem.given)}{" "}
          <Nearest problem={problem} onPick={(word) => onMend(line.line, problem, word)} />
        </p>
      ))}
      <OwnLines lines={one.summary.lines} />
      {alone && i < 4 && one.summary.round.length > 0 && <RoundSheet phases={one.summary.round} lamp={9} />}
    </div>
  ));
}

/** Nearest offers the words that are nearest to one that was not understood. */
function Nearest({ problem, onPick }: { problem: LineProblem; onPick: (word: string) => void }) {
  return problem.nearest.map((word) => (
    <Button key={word} size="sm" variant="outline-secondary" onClick={() => onPick(word)}>
      {word}
    </Button>
  ));
}

/** Understood is the sentence with what was understood of a line. What the line did not say is marked. */
function Understood({ summary, facts }: TypedPassage) {
  const named = facts.find((fact) => fact.field === "practice");
  return (
    <p>
      <b>{summary.name}</b>
      {named?.assumed && <Assumed />}
      {facts
        .filter((fact) => fact !== named)
        .map((fact) => (
          <Fragment key={fact.field}>
            , <span className={fact.assumed ? "assumed" : undefined}>{factText(fact)}</span>
            {fact.assumed && <Assumed />}
          </Fragment>
        ))}
      {summary.closing.length > 0 && (
        <span>{t("plan.then", { value: summary.closing.map(text).join(", ") })}</span>
      )}
      . {clock(summary.length_ms)}
    </p>
  );
}

function Assumed() {
  return <i className="assumed"> {assumedMark()}</i>;
}
