import { sessionQuery, settingsQuery } from "../wire/queries";
import "../frame/editing/choices.css";
import "./school.css";
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { Alert, Button, Form } from "react-bootstrap";
import { put, remove } from "../wire/api";
import { readAgain } from "../wire/changed";
import type { Path } from "../frame/editing/merge";
import type { Session, Settings } from "../wire/contract";
import { Shell } from "../frame/shell/Shell";
import { Link } from "react-router";
import { ErrorAlert } from "../frame/shell/ErrorAlert";
import { languageName } from "../frame/shell/languageName";
import { Loading } from "../frame/shell/Loading";
import { useEdited } from "../frame/editing/useEdited";
import { EditedNotice } from "../frame/editing/EditedNotice";
import { Choices } from "../frame/editing/Choices";
import { AllData } from "./AllData";
import { DemoData } from "./DemoData";

/** SchoolView is how this teacher does it: the questions on which schools differ, and what is said. */
export function SchoolView() {
  const settings = useQuery(settingsQuery);
  return (
    <Shell view="school">
      {settings.isPending && <Loading what="Loading your school" />}
      {settings.isError && <ErrorAlert error={settings.error} retry={() => void settings.refetch()} />}
      {settings.data && <Edit start={answers(settings.data)} />}
      <ThisDevice />
      <AllData />
      <DemoData />
    </Shell>
  );
}

/** Answers is what this page changes: keys, which it leaves out, stay as they are. */
type Answers = Omit<Settings, "keys">;

function answers(settings: Settings): Answers {
  const rest: Partial<Settings> & Answers = { ...settings };
  delete rest.keys;
  return rest;
}

/** answerName is what this page calls a field; null for one that it does not change. */
function answerName([field, part]: Path, { questions }: Answers): string | null {
  switch (field) {
    case "schools":
      return questions?.find((q) => q.id === part)?.asks ?? part ?? null;
    case "own_words":
      return `Your own word for “${part}”`;
    case "language":
      return "Language of the cues";
    case "bring":
      return "What people should bring";
    case "ask_after":
      return "Ask after a class how it was";
  }
  return null;
}

function Edit({ start }: { start: Answers }) {
  const edited = useEdited(start, "school");
  const { draft: settings, setDraft: setSettings, changed } = edited;
  const queries = useQueryClient();
  const store = useMutation({
    mutationFn: (sent: Answers) => put<Settings>("/settings", sent),
    onError: readAgain(queries, settingsQuery.queryKey),
    onSuccess: (stored, sent) => {
      edited.saved(sent, answers(stored));
      queries.setQueryData(settingsQuery.queryKey, stored);
    },
  });
  const set = (part: Partial<Answers>) => {
    setSettings({ ...settings, ...part });
    store.reset();
  };
  const own = (key: string, text: string) => {
    const next = { ...settings.own_words, [key]: text };
    if (text === "") delete next[key];
    set({ own_words: next });
  };
  return (
    <>
      <div className="d-flex justify-content-between align-items-center">
        <h1>Your school</h1>
        <Button disabled={!changed || store.isPending} onClick={() => store.mutate(settings)}>
          Save
        </Button>
      </div>
      <p className="text-secondary">
        These answers set what a new passage starts with, what is shown beside a practice, which cautions
        apply, and what is said. A group may differ. Plans that you have written stay as they are, apart from
        what is said.
      </p>
      <EditedNotice
        what="these answers"
        error={store.error}
        edited={edited}
        nameOf={(path) => answerName(path, start)}
      />
      {store.isSuccess && !changed && <Alert variant="success">Saved.</Alert>}
      <Choices
        questions={settings.questions ?? []}
        chosen={settings.schools}
        onChange={(schools) => set({ schools })}
      />
      <h2 className="mt-4">Before a class</h2>
      <Form.Group controlId="bring" className="mb-3">
        <Form.Label>What people should bring (the room's page shows it before class)</Form.Label>
        <Form.Control
          placeholder="a cushion, a blanket, a handkerchief"
          maxLength={300}
          value={settings.bring}
          onChange={(e) => set({ bring: e.target.value })}
        />
      </Form.Group>
      <h2 className="mt-4">After a class</h2>
      <Form.Check
        id="ask-after"
        className="mb-3"
        checked={settings.ask_after}
        onChange={(e) => set({ ask_after: e.target.checked })}
        label="For half an hour after class the room's page asks how it was: easy, right or too much. Only totals are kept. They appear in the record and count towards next time."
      />
      <p>
        <Link to="/keys">Keys, pedals and remotes</Link> have a page of their own.
      </p>
      <h2 className="mt-4">What is said</h2>
      <Form.Group controlId="language" className="choice mb-3">
        <Form.Label>Language of the cues</Form.Label>
        <Form.Select value={settings.language} onChange={(e) => set({ language: e.target.value })}>
          {(settings.languages ?? []).map((tag) => (
            <option key={tag} value={tag}>
              {languageName(tag)}
            </option>
          ))}
        </Form.Select>
      </Form.Group>
      <p>
        <Link to="/voices">Your own voice</Link>: record the words, and you are heard in place of the
        browser&apos;s voice.
      </p>
      <p className="text-secondary">
        Your own words in place of any of these
        {settings.language !== start.language && " (the list is that of the language saved last)"}:
      </p>
      <div className="wordlist">
        {(settings.words ?? []).map((w) => (
          <label key={w.key}>
            <span>{w.key}</span>
            <Form.Control
              size="sm"
              placeholder={w.text}
              maxLength={200}
              value={settings.own_words[w.key] ?? ""}
              onChange={(e) => own(w.key, e.target.value)}
            />
          </label>
        ))}
      </div>
    </>
  );
}

/** ThisDevice tells how this device is signed in, where anybody has to. */
function ThisDevice() {
  const queries = useQueryClient();
  const session = useQuery(sessionQuery);
  const leave = useMutation({
    mutationFn: () => remove<Session>("/session"),
    onSuccess: (left) => queries.setQueryData(sessionQuery.queryKey, left),
  });
  if (!session.data?.needed) return null;
  return (
    <p className="mt-4">
      This device is signed in as <strong>{session.data.device}</strong>.{" "}
      <Button variant="outline-secondary" size="sm" disabled={leave.isPending} onClick={() => leave.mutate()}>
        Sign out
      </Button>
    </p>
  );
}
