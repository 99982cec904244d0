import "./plan.css";
import arrowClockwise from "bootstrap-icons/icons/arrow-clockwise.svg?raw";
import arrowCounterclockwise from "bootstrap-icons/icons/arrow-counterclockwise.svg?raw";
import playFill from "bootstrap-icons/icons/play-fill.svg?raw";
import signpost from "bootstrap-icons/icons/signpost.svg?raw";
import { useQuery } from "@tanstack/react-query";
import {
  closestCenter,
  DndContext,
  type DragEndEvent,
  KeyboardSensor,
  PointerSensor,
  useSensor,
  useSensors,
  type UniqueIdentifier,
} from "@dnd-kit/core";
import {
  arrayMove,
  SortableContext,
  sortableKeyboardCoordinates,
  verticalListSortingStrategy,
} from "@dnd-kit/sortable";
import { lazy, Suspense, useEffect, useState } from "react";
import { Alert, Button, Col, Form, InputGroup, Row } from "react-bootstrap";
import { useNavigate, useParams } from "react-router";
import { Icon } from "../frame/Icon";
import { get } from "../wire/api";
import type { Book, Plan } from "../wire/contract";
import { Shell } from "../frame/Shell";
import { ErrorAlert } from "../frame/ErrorAlert";
import { Loading } from "../frame/Loading";
import { numberOrText, text } from "../frame/fields";
import { CourseStrip } from "./Course";
import { FilesMenu } from "./FilesMenu";
import { FitBar } from "./FitBar";
import { PassageRow } from "./PassageRow";
import { TimeBar } from "./TimeBar";
import { carry, nameOf } from "./identity";
import { forgetUnsaved } from "./unsaved";
import { type Editor, usePlanEditor } from "./usePlanEditor";
import type { PassageDoc } from "../wire/plan";

const BeforeLeading = lazy(async () => ({ default: (await import("../frame/BeforeLeading")).BeforeLeading }));

export function PlanView() {
  const id = Number(useParams().id);
  const plan = useQuery({
    queryKey: ["plan", id],
    queryFn: () => get<Plan>(`/plans/${id}`),
    staleTime: Infinity, // while it is edited, this window's version is the one that counts
    gcTime: 0,
  });
  return (
    <Shell view="plan">
      {plan.isPending && <Loading what="Opening the plan" />}
      {plan.isError && <ErrorAlert error={plan.error} retry={() => void plan.refetch()} />}
      {plan.data && <EditPlan key={id} plan={plan.data} />}
    </Shell>
  );
}

function EditPlan({ plan }: { plan: Plan }) {
  const editor = usePlanEditor(plan);
  const [opened, setOpened] = useState(""); // the name of the passage whose details are shown
  const [asking, setAsking] = useState(false);
  const { document, summary } = editor;
  const replace = (passages: PassageDoc[]) => editor.change({ document: { ...document, passages } });
  const move = (from: number, to: number) => replace(arrayMove(document.passages, from, to));
  const edit = (i: number, next: PassageDoc) => {
    carry(document.passages[i], next);
    replace(document.passages.with(i, next));
  };
  const placeOf = (name: UniqueIdentifier) => document.passages.findIndex((p) => nameOf(p) === name);
  const sensors = useSensors(
    useSensor(PointerSensor, { activationConstraint: { distance: 5 } }),
    useSensor(KeyboardSensor, { coordinateGetter: sortableKeyboardCoordinates }),
  );
  const dropped = ({ active, over }: DragEndEvent) => {
    if (over && over.id !== active.id) move(placeOf(active.id), placeOf(over.id));
  };
  useUndoKeys(editor);
  return (
    <>
      <Head plan={plan} editor={editor} onLead={() => void editor.save().then(() => setAsking(true))} />
      <CourseStrip id={plan.id} />
      <TimeBar summary={summary} />
      <FitBar editor={editor} />
      {editor.trouble && <Alert variant="warning">{editor.trouble}</Alert>}
      <PlanErrors errors={summary.errors.filter((e) => e.passage === 0).map((e) => e.text)} />
      <DndContext sensors={sensors} collisionDetection={closestCenter} onDragEnd={dropped}>
        <SortableContext items={document.passages.map(nameOf)} strategy={verticalListSortingStrategy}>
          <div className="passages" role="list" aria-label="Running order">
            {document.passages.length === 0 && (
              <p className="text-secondary m-3">
                Nothing is planned yet. Add a first passage below: <kbd>talk 1m seat and spine</kbd>, for
                instance.
              </p>
            )}
            {document.passages.map((doc, i) => (
              <PassageRow
                key={nameOf(doc)}
                id={nameOf(doc)}
                number={i + 1}
                doc={doc}
                summary={summary.passages[i]}
                errors={summary.errors.filter((e) => e.passage === i + 1)}
                starts={summary.starts_ms}
                open={opened === nameOf(doc)}
                onToggle={() => setOpened(opened === nameOf(doc) ? "" : nameOf(doc))}
                onChange={(next) => edit(i, next)}
                onShort={(text) => editor.shorten(i + 1, text)}
                onSoften={() => void editor.soften(i + 1)}
                onAsk={editor.ask}
                onSplit={() => void editor.ask({ passage: i + 1, split: true })}
                onMove={(by) => move(i, i + by)}
                onDuplicate={() => replace(document.passages.toSpliced(i + 1, 0, structuredClone(doc)))}
                onRemove={() => replace(document.passages.toSpliced(i, 1))}
                last={i === document.passages.length - 1}
              />
            ))}
          </div>
        </SortableContext>
      </DndContext>
      <AddPassage first={document.passages.length === 0} onAdd={(text) => editor.shorten(0, text)} />
      <Advised editor={editor} />
      <Suspense>{asking && <BeforeLeading plan={plan.id} onClose={() => setAsking(false)} />}</Suspense>
    </>
  );
}

/** useUndoKeys undoes and does again where no field is being typed in, which has its own. */
function useUndoKeys({ undo, redo }: Editor) {
  useEffect(() => {
    const listen = (event: KeyboardEvent) => {
      const typing =
        event.target instanceof HTMLElement && ["INPUT", "TEXTAREA", "SELECT"].includes(event.target.tagName);
      if (typing || !(event.ctrlKey || event.metaKey)) return;
      const key = event.key.toLowerCase();
      const act = key === "y" || (key === "z" && event.shiftKey) ? redo : key === "z" ? undo : undefined;
      if (!act) return;
      event.preventDefault();
      act();
    };
    window.addEventListener("keydown", listen);
    return () => window.removeEventListener("keydown", listen);
  }, [undo, redo]);
}

function Head({ plan, editor, onLead }: { plan: Plan; editor: Editor; onLead: () => void }) {
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
          <h1 className="visually-hidden">Plan: {text(document.title) || "without a title"}</h1>
          <Form.Control
            className="plan-title"
            aria-label="Title of the plan"
            placeholder="Title"
            value={text(document.title)}
            onChange={(e) => set("title", e.target.value)}
          />
        </Col>
        <Col xs="auto" className="d-flex flex-wrap gap-2 align-items-center">
          <Saved editor={editor} id={plan.id} />
          <Button variant="outline-secondary" onClick={editor.undo} disabled={!editor.undo} aria-label="Undo">
            <Icon of={arrowCounterclockwise} />
          </Button>
          <Button variant="outline-secondary" onClick={editor.redo} disabled={!editor.redo} aria-label="Redo">
            <Icon of={arrowClockwise} />
          </Button>
          <FilesMenu id={plan.id} title={text(document.title)} summary={summary} save={editor.save} />
          <Button
            variant="outline-primary"
            disabled={summary.errors.length > 0 || summary.passages.length === 0}
            onClick={() => void editor.save().then(() => navigate(`/try/${plan.id}`))}
          >
            Try it
          </Button>
          <Button onClick={onLead} disabled={summary.errors.length > 0 || summary.passages.length === 0}>
            <Icon of={playFill} /> Lead
          </Button>
        </Col>
      </Row>
      <Row className="g-2 mb-2">
        <Col md={4}>
          <InputGroup>
            <InputGroup.Text as="label" htmlFor="group">
              Group
            </InputGroup.Text>
            <Form.Select
              id="group"
              value={editor.group}
              onChange={(e) => editor.change({ group: Number(e.target.value) })}
            >
              <option value={0}>none</option>
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
              Starts
            </InputGroup.Text>
            <Form.Control
              id="starts"
              type="datetime-local"
              value={localTime(document.starts_at)}
              onChange={(e) => set("starts_at", withZone(e.target.value))}
            />
          </InputGroup>
        </Col>
        <NumberField label="Slot" unit="min" value={document.slot_min} onChange={(v) => set("slot_min", v)} />
        <NumberField
          label="Tempo"
          unit="/min"
          value={document.tempo}
          placeholder="50"
          onChange={(v) => set("tempo", v)}
        />
      </Row>
    </>
  );
}

/** Advised is the advice on order and length; it forbids nothing, and each piece can be put away. */
function Advised({ editor }: { editor: Editor }) {
  const { summary, ask } = editor;
  const [away, setAway] = useState<string[]>([]);
  const list = summary.advice.filter((a) => !away.includes(a.say));
  if (list.length === 0 || summary.passages.length === 0) return null;
  return (
    <section className="advice" aria-label="Advice">
      {list.map((a) => (
        <Alert key={a.say} variant="light" dismissible onClose={() => setAway([...away, a.say])}>
          <Icon of={signpost} /> <strong>{a.say}</strong> {a.why}{" "}
          {a.do === "next" && (
            <Button
              size="sm"
              variant="outline-primary"
              onClick={() => void ask({ passage: a.passage, next: true })}
            >
              Use it
            </Button>
          )}
          {a.do === "learned" && (
            <Button size="sm" variant="outline-primary" onClick={() => void ask({ learned: true })}>
              Use these lengths
            </Button>
          )}
        </Alert>
      ))}
    </section>
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

function localTime(value: unknown): string {
  const at = new Date(text(value));
  if (Number.isNaN(at.getTime())) return "";
  return new Date(at.getTime() - at.getTimezoneOffset() * 60_000).toISOString().slice(0, 16);
}

/** withZone writes a local time as RFC 3339 with this machine's offset at that time. */
function withZone(local: string): string | undefined {
  if (local === "") return undefined;
  const offset = -new Date(local).getTimezoneOffset();
  const two = (n: number) => String(Math.trunc(Math.abs(n))).padStart(2, "0");
  return `${local}:00${offset < 0 ? "-" : "+"}${two(offset / 60)}:${two(offset % 60)}`;
}

function Saved({ editor, id }: { editor: Editor; id: number }) {
  const { saving } = editor;
  if (saving === "saved") return <span className="text-secondary">Saved</span>;
  if (saving === "saving") return <span className="text-secondary">Saving …</span>;
  return (
    <span className="text-danger d-flex gap-2 align-items-center" role="alert">
      Not saved: {saving.failed}
      {saving.conflict ? (
        <>
          <Button
            size="sm"
            variant="outline-secondary"
            onClick={() => {
              forgetUnsaved(id);
              window.location.reload();
            }}
          >
            Show the other
          </Button>
          <Button
            size="sm"
            variant="outline-danger"
            onClick={() => void get<Plan>(`/plans/${id}`).then((newest) => editor.overwrite(newest.revision))}
          >
            Keep this one
          </Button>
        </>
      ) : (
        <Button size="sm" variant="outline-danger" onClick={() => void editor.save()}>
          Try again
        </Button>
      )}
    </span>
  );
}

function PlanErrors({ errors }: { errors: string[] }) {
  if (errors.length === 0) return null;
  return (
    <Alert variant="danger">
      {errors.map((error) => (
        <div key={error}>{error}</div>
      ))}
    </Alert>
  );
}

function AddPassage({ first, onAdd }: { first: boolean; onAdd: (text: string) => Promise<string | null> }) {
  const [typed, setTyped] = useState("");
  const [problem, setProblem] = useState("");
  const practices = useQuery({
    queryKey: ["practices", 0],
    queryFn: () => get<Book>("/practices"),
    staleTime: Infinity,
  });
  const add = async () => {
    const why = await onAdd(typed);
    setProblem(why ?? "Another change was being made. Press Add once more.");
    if (why === "") setTyped("");
  };
  return (
    <Form
      className="mt-2"
      onSubmit={(e) => {
        e.preventDefault();
        void add();
      }}
    >
      <InputGroup>
        <InputGroup.Text as="label" htmlFor="add">
          Add
        </InputGroup.Text>
        <Form.Control
          id="add"
          autoFocus={first}
          list="practices"
          autoComplete="off"
          placeholder="nadi 4:4:8 x6 @50   ·   talk 1m seat and spine   ·   rest 2m"
          value={typed}
          isInvalid={problem !== ""}
          onChange={(e) => {
            setTyped(e.target.value);
            setProblem("");
          }}
        />
        <Button type="submit" variant="outline-primary">
          Add
        </Button>
        <Form.Control.Feedback type="invalid">{problem}</Form.Control.Feedback>
      </InputGroup>
      <datalist id="practices">
        <option value="talk 1m ">a talk</option>
        <option value="rest 2m">natural breath</option>
        {practices.data?.practices.map((p) => (
          <option key={p.id} value={p.id}>
            {p.name}
          </option>
        ))}
      </datalist>
    </Form>
  );
}
