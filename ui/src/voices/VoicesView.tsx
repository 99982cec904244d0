import { settingsQuery } from "../wire/queries";
import { voicesQuery } from "./queries";
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { Button, Card, Form } from "react-bootstrap";
import { Link, useNavigate } from "react-router";
import { DeletedLately } from "../frame/dialogs/BringBack";
import { ErrorAlert } from "../frame/shell/ErrorAlert";
import { Loading } from "../frame/shell/Loading";
import { Shell } from "../frame/shell/Shell";
import { post } from "../wire/api";
import { changeSettings } from "../wire/changed";
import type { VoiceName, Voices, VoiceSheet } from "../wire/contract";
import { languageName } from "../frame/shell/languageName";
import { rich, t } from "../language/text";

/** VoicesView is the recorded voices: whose there are, and which one speaks. */
export function VoicesView() {
  const voices = useQuery(voicesQuery);
  return (
    <Shell view="school">
      <h1>{t("frame.your-own-voice")}</h1>
      <p className="text-secondary">{t("voices.record-the-words-once")}</p>
      {voices.isPending && <Loading what={t("voices.loading-recorded-voices")} />}
      {voices.isError && <ErrorAlert error={voices.error} retry={() => void voices.refetch()} />}
      {voices.data && <List voices={voices.data} onChanged={() => void voices.refetch()} />}
      <DeletedLately kinds={["voice"]} />
    </Shell>
  );
}

function List({ voices, onChanged }: { voices: Voices; onChanged: () => void }) {
  const queries = useQueryClient();
  const speak = useMutation({
    mutationFn: (uid: string) => changeSettings({ voice: uid }),
    onSuccess: (settings) => {
      queries.setQueryData(settingsQuery.queryKey, settings);
      onChanged();
    },
  });
  const nobody = !voices.voices.some((voice) => voice.speaks);
  return (
    <>
      {speak.isError && <ErrorAlert error={speak.error} />}
      {voices.voices.map((voice) => (
        <Card key={voice.id} className="mb-3">
          <Card.Body className="d-flex flex-wrap gap-2 align-items-center">
            <div className="me-auto">
              <h2 className="mb-0">{voice.name}</h2>
              <span className="text-secondary">
                {t("voices.of-recorded", {
                  language: languageName(voice.language),
                  recorded: voice.recorded,
                  words: voice.words,
                })}
              </span>
            </div>
            <Form.Check
              type="switch"
              id={`speaks-${voice.id}`}
              label={t("voices.speaks-in-classes", { language: languageName(voice.language) })}
              checked={voice.speaks}
              disabled={speak.isPending}
              onChange={(e) => speak.mutate(e.target.checked ? voice.uid : "")}
            />
            <Link className="btn btn-outline-primary" to={`/voices/${voice.id}`}>
              {t("voices.record-and-hear")}
            </Link>
          </Card.Body>
        </Card>
      ))}
      {voices.voices.some((voice) => voice.speaks && voice.language !== voices.language) && (
        <p role="status">
          {rich("voices.your-classes-are-in-this-voice", {
            language: languageName(voices.language),
            link: <Link to="/school">{t("voices.school")}</Link>,
          })}
        </p>
      )}
      <New voices={voices} onMade={(uid) => nobody && speak.mutate(uid)} />
    </>
  );
}

/** New makes a voice: one's own, or a substitute's. The first one speaks at once. */
function New({ voices, onMade }: { voices: Voices; onMade: (uid: string) => void }) {
  const [name, setName] = useState("");
  const [language, setLanguage] = useState(voices.language);
  const go = useNavigate();
  const make = useMutation({
    mutationFn: () => post<VoiceSheet>("/voices", { name, language } satisfies VoiceName),
    onSuccess: ({ voice }) => {
      onMade(voice.uid);
      void go(`/voices/${voice.id}`);
    },
  });
  return (
    <Form
      className="newvoice"
      onSubmit={(e) => {
        e.preventDefault();
        make.mutate();
      }}
    >
      <h2>
        {voices.voices.length === 0
          ? t("voices.begin-with-yours")
          : t("voices.another-voice-for-example-a-substitutes")}
      </h2>
      {make.isError && <ErrorAlert error={make.error} />}
      <div className="d-flex flex-wrap gap-2 align-items-end">
        <Form.Group controlId="whose-voice">
          <Form.Label>{t("voices.whose-voice")}</Form.Label>
          <Form.Control value={name} maxLength={60} required onChange={(e) => setName(e.target.value)} />
        </Form.Group>
        <Form.Group controlId="voice-language">
          <Form.Label>{t("voices.language")}</Form.Label>
          <Form.Select value={language} onChange={(e) => setLanguage(e.target.value)}>
            {voices.languages.map((tag) => (
              <option key={tag} value={tag}>
                {languageName(tag)}
              </option>
            ))}
          </Form.Select>
        </Form.Group>
        <Button type="submit" disabled={name.trim() === "" || make.isPending}>
          {t("frame.begin")}
        </Button>
      </div>
    </Form>
  );
}
