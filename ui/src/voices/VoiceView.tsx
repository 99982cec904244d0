import { voiceQuery } from "./queries";
import "./voices.css";
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useCallback, useEffect, useRef, useState } from "react";
import { Alert, Button, Form } from "react-bootstrap";
import { Link, useParams } from "react-router";
import { DeleteCard } from "../frame/dialogs/DeleteCard";
import { ErrorAlert } from "../frame/shell/ErrorAlert";
import { languageName } from "../frame/shell/languageName";
import { Loading } from "../frame/shell/Loading";
import { Shell } from "../frame/shell/Shell";
import { post, put } from "../wire/api";
import type { VoiceName, VoiceRecording, VoiceSheet, VoiceText, VoiceWord } from "../wire/contract";
import { soundOf } from "../wire/sounds";
import { Files } from "./Files";
import { OneAfterTheOther } from "./OneAfterTheOther";
import { asWave } from "./sounds";
import { WordList } from "./WordList";
import { t } from "../language/text";

/** VoiceView is one recorded voice: what is recorded, what is missing, and how to record it. */
export function VoiceView() {
  const id = Number(useParams().id);
  const sheet = useQuery(voiceQuery(id));
  return (
    <Shell view="school">
      {sheet.isPending && <Loading what={t("frame.loading-the-recordings")} />}
      {sheet.isError && <ErrorAlert error={sheet.error} retry={() => void sheet.refetch()} />}
      {sheet.data && <Voice key={id} sheet={sheet.data} />}
    </Shell>
  );
}

/** useHearing plays recordings, one at a time. */
function useHearing() {
  const playing = useRef<HTMLAudioElement>(undefined);
  const [error, setError] = useState<Error | null>(null);
  const hear = useCallback((sum: string) => {
    playing.current?.pause();
    setError(null);
    soundOf(sum)
      .then(({ file }) => {
        const address = URL.createObjectURL(new Blob([file], { type: "audio/wav" }));
        const audio = new Audio(address);
        playing.current = audio;
        audio.onended = () => URL.revokeObjectURL(address);
        return audio.play();
      })
      .catch(setError);
  }, []);
  useEffect(() => () => playing.current?.pause(), []);
  return { hear, error };
}

function Voice({ sheet }: { sheet: VoiceSheet }) {
  const { voice, words } = sheet;
  const queries = useQueryClient();
  const [deleting, setDeleting] = useState(false);
  const [at, setAt] = useState(() => nextMissing(words, 0));
  const { hear, error: unheard } = useHearing();
  const keep = (fresh: VoiceSheet) => queries.setQueryData(voiceQuery(voice.id).queryKey, fresh);
  const record = useMutation({
    mutationFn: async ({ text, sound }: { text: string; sound: Blob }) =>
      post<VoiceSheet>(`/voices/${voice.id}/words`, {
        text,
        sound: await asWave(sound),
      } satisfies VoiceRecording),
    onSuccess: keep,
  });
  const takeBack = useMutation({
    mutationFn: (text: string) => post<VoiceSheet>(`/voices/${voice.id}/back`, { text } satisfies VoiceText),
    onSuccess: keep,
  });
  const recorded = (text: string, sound: Blob) => {
    record.mutate(
      { text, sound },
      {
        onSuccess: (fresh) => {
          const made = fresh.words.find((w) => w.text === text)?.recorded;
          if (made) hear(made.sum);
          setAt(nextMissing(fresh.words, fresh.words.findIndex((w) => w.text === text) + 1));
        },
      },
    );
  };
  const missing = words.filter((w) => !w.recorded).length;
  return (
    <>
      <p className="mb-1">
        <Link to="/voices">{t("voices.all-voices")}</Link>
      </p>
      <Named sheet={sheet} onNamed={keep} />
      <p className="text-secondary">
        {t("voices.of-recorded-each-recording-is-trimmed", {
          language: languageName(voice.language),
          recorded: voice.recorded,
          words: voice.words,
          value: String(sheet.target).replace("-", "−"),
        })}
      </p>
      <OneAfterTheOther
        words={words}
        at={at}
        missing={missing}
        longest={sheet.longest}
        sending={record.isPending}
        error={record.error ?? unheard}
        onAt={setAt}
        onRecorded={recorded}
        onHear={hear}
      />
      <Files words={words} send={(text, sound) => record.mutateAsync({ text, sound })} />
      {takeBack.isError && <ErrorAlert error={takeBack.error} />}
      <WordList
        words={words}
        at={at}
        onAt={setAt}
        onHear={hear}
        onTakeBack={(text) => takeBack.mutate(text)}
        busy={takeBack.isPending}
      />
      {voice.recorded > 0 && missing === 0 && (
        <Alert variant="success">{t("voices.everything-is-recorded")}</Alert>
      )}
      <p className="mt-4">
        <Button variant="outline-danger" onClick={() => setDeleting(true)}>
          {t("voices.delete-this-voice")}
        </Button>
      </p>
      {deleting && (
        <DeleteCard
          kind="voice"
          id={voice.id}
          name={voice.name}
          to="/voices"
          onClose={() => setDeleting(false)}
        />
      )}
    </>
  );
}

/** nextMissing is the next word from there on that is not recorded; the place itself where none is. */
function nextMissing(words: VoiceWord[], from: number): number {
  const after = words.findIndex((w, i) => i >= from && !w.recorded);
  if (after >= 0) return after;
  const before = words.findIndex((w) => !w.recorded);
  return before >= 0 ? before : Math.min(from, words.length - 1);
}

/** Named is whose voice it is, to be changed in its place. */
function Named({ sheet, onNamed }: { sheet: VoiceSheet; onNamed: (fresh: VoiceSheet) => void }) {
  const { id, name, language } = sheet.voice;
  const [typed, setTyped] = useState<string | null>(null);
  const store = useMutation({
    mutationFn: (to: string) => put<VoiceSheet>(`/voices/${id}`, { name: to, language } satisfies VoiceName),
    onSuccess: (fresh) => {
      onNamed(fresh);
      setTyped(null);
    },
  });
  if (typed === null)
    return (
      <h1>
        {name}{" "}
        <Button variant="link" size="sm" onClick={() => setTyped(name)}>
          {t("voices.rename")}
        </Button>
      </h1>
    );
  return (
    <Form
      className="d-flex flex-wrap gap-2 mb-2"
      onSubmit={(e) => {
        e.preventDefault();
        store.mutate(typed);
      }}
    >
      {store.isError && <ErrorAlert error={store.error} />}
      <Form.Control
        aria-label={t("voices.whose-voice")}
        autoFocus
        className="w-auto"
        maxLength={60}
        value={typed}
        onChange={(e) => setTyped(e.target.value)}
        onKeyDown={(e) => e.key === "Escape" && setTyped(null)}
      />
      <Button type="submit" disabled={typed.trim() === "" || store.isPending}>
        {t("frame.save")}
      </Button>
      <Button variant="link" onClick={() => setTyped(null)}>
        {t("frame.cancel")}
      </Button>
    </Form>
  );
}
