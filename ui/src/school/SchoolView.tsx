import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { Alert, Button, Form } from "react-bootstrap";
import { get, put } from "../shared/api";
import type { Settings } from "../shared/contract";
import { Shell, Trouble, Waiting } from "../shared/Shell";
import { Choices } from "./Choices";

/** SchoolView is how this teacher does it: the questions on which schools differ, and what is said. */
export function SchoolView() {
  const settings = useQuery({ queryKey: ["settings"], queryFn: () => get<Settings>("/settings") });
  return (
    <Shell view="school">
      {settings.isPending && <Waiting what="Looking up your school" />}
      {settings.isError && <Trouble error={settings.error} retry={() => void settings.refetch()} />}
      {settings.data && <Edit key={settings.dataUpdatedAt} start={settings.data} />}
    </Shell>
  );
}

const languages: { [tag: string]: string } = { en: "English", de: "Deutsch" };

function Edit({ start }: { start: Settings }) {
  const [settings, setSettings] = useState(start);
  const queries = useQueryClient();
  const store = useMutation({
    mutationFn: () => put<Settings>("/settings", settings),
    onSuccess: (stored) => queries.setQueryData(["settings"], stored),
  });
  const set = (part: Partial<Settings>) => {
    setSettings({ ...settings, ...part });
    store.reset();
  };
  const changed = JSON.stringify(settings) !== JSON.stringify(start);
  const own = (key: string, text: string) => {
    const next = { ...settings.own_words, [key]: text };
    if (text === "") delete next[key];
    set({ own_words: next });
  };
  return (
    <>
      <div className="d-flex justify-content-between align-items-center">
        <h1>Your school</h1>
        <Button disabled={!changed || store.isPending} onClick={() => store.mutate()}>
          Save
        </Button>
      </div>
      <p className="text-secondary">
        It sets what a new passage begins with, what is shown beside a practice, what is cared for and what is
        said. A group may differ. Plans that are written already stay as they are, but for what is said.
      </p>
      {store.isError && <Trouble error={store.error} />}
      {store.isSuccess && !changed && <Alert variant="success">Saved.</Alert>}
      <Choices
        questions={settings.questions ?? []}
        chosen={settings.schools}
        onChange={(schools) => set({ schools })}
      />
      <h2 className="mt-4">What is said</h2>
      <Form.Group controlId="language" className="choice mb-3">
        <Form.Label>Language of the cues</Form.Label>
        <Form.Select value={settings.language} onChange={(e) => set({ language: e.target.value })}>
          {(settings.languages ?? []).map((tag) => (
            <option key={tag} value={tag}>
              {languages[tag] ?? tag}
            </option>
          ))}
        </Form.Select>
      </Form.Group>
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
