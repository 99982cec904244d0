import { MoreCare, PhaseWords } from "./OwnParts";
import { useDraft } from "./useDraft";
import { practiceFileQuery } from "./queries";
import "../player/lamps.css";
import "./practices.css";
import { EditedNotice } from "../frame/editing/EditedNotice";
import { text } from "../frame/editing/fields";
import { useEdited } from "../frame/editing/useEdited";
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { Alert, Button, Col, Form, Row } from "react-bootstrap";
import { Link, useNavigate, useParams } from "react-router";
import { Failed, post, remove } from "../wire/api";
import { readAgain } from "../wire/changed";
import type { Path } from "../frame/editing/merge";
import { Cautions } from "../frame/care/care";
import type { Done, PracticeFile } from "../wire/contract";
import { Shell } from "../frame/shell/Shell";
import { ErrorAlert } from "../frame/shell/ErrorAlert";
import { Loading } from "../frame/shell/Loading";
import { Steps } from "../frame/editing/Steps";
import { FigureEditor, type StepDoc } from "./FigureEditor";
import { Sample } from "./Sample";
import type { Key } from "../language/catalogue";
import { t, text as say } from "../language/text";

export type PracticeDoc = { [field: string]: unknown };

/** OwnEditor changes a practice of the teacher's own, with its lamp sheet playing what is written. */
export function OwnEditor() {
  const id = useParams().id ?? "";
  const file = useQuery(practiceFileQuery(id));
  return (
    <Shell view="practice-edit">
      {file.isPending && <Loading what={t("practices.opening-the-practice")} />}
      {file.isError && <ErrorAlert error={file.error} retry={() => void file.refetch()} />}
      {file.data && (
        <Edit key={id} stored={{ doc: file.data.document as PracticeDoc, revision: file.data.revision }} />
      )}
    </Shell>
  );
}

type Typed = { target: { value: string } };

const asLines = (value: unknown) => (Array.isArray(value) ? value.map(text).join("\n") : "");
const fromLines = (typed: string) => (typed.trim() === "" ? undefined : typed.split("\n"));
const asNumber = (typed: string) => (/^\d+$/.test(typed) ? Number(typed) : typed === "" ? undefined : typed);

/** Stored is a practice, and the revision that a save changes. */
type Stored = { doc: PracticeDoc; revision: number };

function Edit({ stored }: { stored: Stored }) {
  const start = stored.doc;
  const edited = useEdited(stored, `practice ${text(start.id)}`);
  const { draft, changed } = edited;
  const { doc } = draft;
  const navigate = useNavigate();
  const queries = useQueryClient();
  const set = (field: string, value: unknown) => {
    const next = { ...doc, [field]: value };
    if (value === undefined || value === "") delete next[field];
    edited.setDraft({ ...draft, doc: next });
  };
  const drafted = useDraft(doc);
  const done = async () => {
    edited.leave();
    await queries.invalidateQueries({ queryKey: ["practices"] });
    await queries.invalidateQueries({ queryKey: ["sample"] });
  };
  const store = useMutation({
    mutationFn: (revision: number) =>
      post<PracticeFile>("/practices", { text: JSON.stringify(doc), revision }),
    onError: readAgain(queries, practiceFileQuery(text(doc.id)).queryKey),
    onSuccess: async () => {
      await done();
      void navigate(`/practices/${text(doc.id)}`);
    },
  });
  const drop = useMutation({
    mutationFn: () => remove<Done>(`/practices/${text(doc.id)}`),
    onSuccess: async () => {
      await done();
      void navigate("/practices");
    },
  });
  const removed = store.error instanceof Failed && store.error.status === 404;
  // Opening and closing belong to the first passage that planning inserts.
  const course = Array.isArray(doc.course) ? (doc.course as PracticeDoc[]) : [];
  const passage = {
    doc: course[0] ?? {},
    onChange: (first: PracticeDoc) => set("course", course.length > 0 ? course.with(0, first) : [first]),
  };
  const line = (field: string, label: string, rows = 1) => {
    const box = { value: text(doc[field]), onChange: (e: Typed) => set(field, e.target.value) };
    return (
      <Form.Group className="mb-2" controlId={field}>
        <Form.Label>{label}</Form.Label>
        {rows > 1 ? <Form.Control as="textarea" rows={rows} {...box} /> : <Form.Control {...box} />}
      </Form.Group>
    );
  };
  const lines = (field: string, label: string) => (
    <Form.Group className="mb-2" controlId={field}>
      <Form.Label>{t("practices.one-a-line", { label })}</Form.Label>
      <Form.Control
        as="textarea"
        rows={3}
        value={asLines(doc[field])}
        onChange={(e) => set(field, fromLines(e.target.value))}
      />
    </Form.Group>
  );
  const count = (field: string, label: string) => (
    <Form.Group as={Col} xs={6} md={3} className="mb-2" controlId={field}>
      <Form.Label>{label}</Form.Label>
      <Form.Control
        inputMode="numeric"
        value={text(doc[field])}
        onChange={(e) => set(field, asNumber(e.target.value))}
      />
    </Form.Group>
  );
  return (
    <>
      <EditorHead
        doc={doc}
        changed={changed}
        ready={changed && drafted?.problem === null && !store.isPending}
        onRemove={() => drop.mutate()}
        onLeave={edited.leave}
        onSave={() => store.mutate(draft.revision)}
      />
      {drop.isError && <ErrorAlert error={drop.error} />}
      <EditedNotice
        what={t("practices.this-practice")}
        error={store.error}
        edited={edited}
        nameOf={practiceField}
      />
      {removed && (
        <p>
          <Button variant="outline-primary" onClick={() => store.mutate(0)}>
            {t("practices.save-it-as-a-new-practice")}
          </Button>
        </p>
      )}
      {drafted?.problem && (
        <Alert variant="warning" role="status">
          {t("practices.not-right-yet", { problem: say(drafted.problem) })}
        </Alert>
      )}
      <Row className="g-4">
        <Col lg={6}>
          {line("name", t("frame.name"))}
          <Row>
            {doc.kind === "counted" && (
              <Form.Group as={Col} xs={6} md={3} className="mb-2" controlId="counts">
                <Form.Label>{t("frame.counts")}</Form.Label>
                <Form.Control value={text(doc.counts)} onChange={(e) => set("counts", e.target.value)} />
              </Form.Group>
            )}
            {doc.minutes === undefined
              ? count("rounds", t("frame.rounds"))
              : count("minutes", t("practices.minutes"))}
            {doc.kind === "strokes" && count("strokes", t("practices.strokes"))}
            {doc.kind === "strokes" && count("rate", t("practices.strokes-a-minute"))}
            {doc.kind !== "open" && doc.kind !== "strokes" && count("tempo", t("frame.tempo"))}
            {count("rest", t("practices.rest-between-s"))}
          </Row>
          <FigureEditor
            kind={text(doc.kind)}
            steps={Array.isArray(doc.figure) ? (doc.figure as (StepDoc | string)[]) : []}
            onChange={(figure) => set("figure", figure)}
          />
          <PhaseWords
            words={(doc.words as { [phase: string]: string } | undefined) ?? {}}
            onChange={(words) => set("words", Object.keys(words).length > 0 ? words : undefined)}
          />
          {line("about", t("practices.what-it"), 3)}
          {lines("how", t("practices.how"))}
          {lines("prompts", t("practices.prompts-between-rounds"))}
          {lines("watch", t("practices.watch-for"))}
        </Col>
        <Col lg={6}>
          {drafted?.sample && <Sample score={drafted.sample} />}
          {line("hands", t("practices.hands-and-fingers"), 2)}
          {line("seat", t("practices.seat"), 2)}
          {line("gentler", t("practices.gentler"), 2)}
          {line("harder", t("practices.harder"), 2)}
          {line("finish", t("frame.closing"), 2)}
          <Steps edit={passage} field="opening" label={t("practices.opens-with")} />
          <Steps edit={passage} field="closing" label={t("practices.closes-with")} />
          <MoreCare base={start} doc={doc} onChange={(care) => set("care", care)} />
          {drafted?.page && <Cautions list={drafted.page.cautions} />}
        </Col>
      </Row>
    </>
  );
}

type HeadProps = {
  doc: PracticeDoc;
  changed: boolean;
  ready: boolean; // it can be saved
  onRemove: () => void;
  onLeave: () => void;
  onSave: () => void;
};

/** EditorHead is the name of the practice, and what is done with all of it. */
function EditorHead({ doc, changed, ready, onRemove, onLeave, onSave }: HeadProps) {
  const [sure, setSure] = useState(false);
  return (
    <div className="d-flex flex-wrap justify-content-between align-items-center mb-2">
      <h1>{text(doc.name) || t("practices.a-practice-of-your-own")}</h1>
      <div className="d-flex flex-wrap gap-2">
        <Button variant="outline-danger" onClick={() => (sure ? onRemove() : setSure(true))}>
          {sure ? t("practices.remove-it-for-good") : t("frame.remove")}
        </Button>
        <Link className="btn btn-outline-secondary" to={`/practices/${text(doc.id)}`} onClick={onLeave}>
          {changed ? t("practices.discard-changes") : t("frame.back")}
        </Link>
        <Button disabled={!ready} onClick={onSave}>
          {t("practices.save-practice")}
        </Button>
      </div>
    </div>
  );
}

/** labels is what the editor calls the fields of a practice's file. */
const labels: { [field: string]: Key } = {
  name: "frame.name",
  counts: "frame.counts",
  rounds: "frame.rounds",
  minutes: "practices.minutes",
  strokes: "practices.strokes",
  rate: "practices.strokes-a-minute",
  tempo: "frame.tempo",
  rest: "practices.rest-between-s",
  figure: "practices.one-round",
  about: "practices.what-it",
  how: "practices.how",
  prompts: "practices.prompts-between-rounds",
  watch: "practices.watch-for",
  hands: "practices.hands-and-fingers",
  seat: "practices.seat",
  gentler: "practices.gentler",
  harder: "practices.harder",
  finish: "frame.closing",
  opening: "practices.opens-with",
  closing: "practices.closes-with",
  care: "practices.cautions-to-add",
};

/** practiceField is what a field of a practice is called; null for one that nobody types. */
function practiceField([, field = "", part]: Path): string | null {
  if (field === "words") return t("practices.word-for", { part });
  if (field === "id" || field === "from" || field === "") return null;
  const label = labels[field];
  return label ? t(label) : field;
}
