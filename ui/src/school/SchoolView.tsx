import { settingsQuery } from "../wire/queries";
import "../frame/editing/choices.css";
import "./school.css";
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { Alert, Button, Form } from "react-bootstrap";
import { put } from "../wire/api";
import { readAgain } from "../wire/changed";
import type { Path } from "../frame/editing/merge";
import type { Settings } from "../wire/contract";
import { Shell } from "../frame/shell/Shell";
import { Link } from "react-router";
import { ErrorAlert } from "../frame/shell/ErrorAlert";
import { LanguageChoice } from "../frame/shell/LanguageChoice";
import { languageName } from "../frame/shell/languageName";
import { Loading } from "../frame/shell/Loading";
import { useEdited } from "../frame/editing/useEdited";
import { EditedNotice } from "../frame/editing/EditedNotice";
import { Choices } from "../frame/editing/Choices";
import { AllData } from "./AllData";
import { DemoData } from "./DemoData";
import { KeptHere } from "./KeptHere";
import { ThisDevice } from "./ThisDevice";
import { rich, t, text } from "../language/text";

/** SchoolView is how this teacher does it: the questions on which schools differ, and what is said. */
export function SchoolView() {
  const settings = useQuery(settingsQuery);
  return (
    <Shell view="school">
      {settings.isPending && <Loading what={t("school.loading-your-school")} />}
      {settings.isError && <ErrorAlert error={settings.error} retry={() => void settings.refetch()} />}
      {settings.data && <Edit start={answers(settings.data)} />}
      <h2 className="mt-4">{t("frame.this-device")}</h2>
      <div className="choice">
        <LanguageChoice />
      </div>
      <ThisDevice />
      <KeptHere />
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
      return text(questions?.find((q) => q.id === part)?.asks) || (part ?? null);
    case "own_words":
      return t("school.your-own-word", { part });
    case "language":
      return t("school.language-of-the-cues");
    case "bring":
      return t("school.what-people-should-bring");
    case "ask_after":
      return t("school.ask-after-a-class-how");
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
        <h1>{t("school.your-school")}</h1>
        <Button disabled={!changed || store.isPending} onClick={() => store.mutate(settings)}>
          {t("frame.save")}
        </Button>
      </div>
      <p className="text-secondary">{t("school.these-answers-set-what-a-new")}</p>
      <EditedNotice
        what={t("school.these-answers")}
        error={store.error}
        edited={edited}
        nameOf={(path) => answerName(path, start)}
      />
      {store.isSuccess && !changed && <Alert variant="success">{t("frame.saved")}</Alert>}
      <Choices
        questions={settings.questions ?? []}
        chosen={settings.schools}
        onChange={(schools) => set({ schools })}
      />
      <h2 className="mt-4">{t("school.before-a-class")}</h2>
      <Form.Group controlId="bring" className="mb-3">
        <Form.Label>{t("school.what-people-should-bring-the-rooms")}</Form.Label>
        <Form.Control
          placeholder={t("school.a-cushion-a-blanket-a-handkerchief")}
          maxLength={300}
          value={settings.bring}
          onChange={(e) => set({ bring: e.target.value })}
        />
      </Form.Group>
      <h2 className="mt-4">{t("school.after-a-class")}</h2>
      <Form.Check
        id="ask-after"
        className="mb-3"
        checked={settings.ask_after}
        onChange={(e) => set({ ask_after: e.target.checked })}
        label={t("school.for-half-an-hour-after-class")}
      />
      <p>
        {rich("school.have-a-page-of-their-own", {
          link: <Link to="/keys">{t("school.keys-pedals-and-remotes")}</Link>,
        })}
      </p>
      <h2 className="mt-4">{t("school.what-is-said")}</h2>
      <Form.Group controlId="language" className="choice mb-3">
        <Form.Label>{t("school.language-of-the-cues")}</Form.Label>
        <Form.Select value={settings.language} onChange={(e) => set({ language: e.target.value })}>
          {(settings.languages ?? []).map((tag) => (
            <option key={tag} value={tag}>
              {languageName(tag)}
            </option>
          ))}
        </Form.Select>
      </Form.Group>
      <p>
        {rich("school.record-the-words", { link: <Link to="/voices">{t("frame.your-own-voice")}</Link> })}
      </p>
      <p className="text-secondary">
        {t("school.your-own-words-in-place")}
        {settings.language !== start.language && t("school.the-list")}:
      </p>
      <div className="wordlist">
        {(settings.words ?? []).map((w) => (
          <label key={w.key}>
            <span>{w.name}</span>
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
