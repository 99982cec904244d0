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

/** VoicesView is the recorded voices: whose there are, and which one speaks. */
export function VoicesView() {
  const voices = useQuery(voicesQuery);
  return (
    <Shell view="school">
      <h1>Your own voice</h1>
      <p className="text-secondary">
        Record the words once, and you are heard at Lead, on the Room page, in a try-out, and in what people
        take home. What is not recorded is left to the browser&apos;s voice or to the tones, and this is said
        beforehand. Recordings stay on this machine, in its backups and in what you export.
      </p>
      {voices.isPending && <Loading what="Loading recorded voices" />}
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
                {languageName(voice.language)} · {voice.recorded} of {voice.words} recorded
              </span>
            </div>
            <Form.Check
              type="switch"
              id={`speaks-${voice.id}`}
              label={`Speaks in classes in ${languageName(voice.language)}`}
              checked={voice.speaks}
              disabled={speak.isPending}
              onChange={(e) => speak.mutate(e.target.checked ? voice.uid : "")}
            />
            <Link className="btn btn-outline-primary" to={`/voices/${voice.id}`}>
              Record and hear
            </Link>
          </Card.Body>
        </Card>
      ))}
      {voices.voices.some((voice) => voice.speaks && voice.language !== voices.language) && (
        <p role="status">
          Your classes are in {languageName(voices.language)}: this voice is not heard in them until you
          change the language under <Link to="/school">School</Link>.
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
      <h2>{voices.voices.length === 0 ? "Begin with yours" : "Another voice, for example a substitute’s"}</h2>
      {make.isError && <ErrorAlert error={make.error} />}
      <div className="d-flex flex-wrap gap-2 align-items-end">
        <Form.Group controlId="whose-voice">
          <Form.Label>Whose voice</Form.Label>
          <Form.Control value={name} maxLength={60} required onChange={(e) => setName(e.target.value)} />
        </Form.Group>
        <Form.Group controlId="voice-language">
          <Form.Label>Language</Form.Label>
          <Form.Select value={language} onChange={(e) => setLanguage(e.target.value)}>
            {voices.languages.map((tag) => (
              <option key={tag} value={tag}>
                {languageName(tag)}
              </option>
            ))}
          </Form.Select>
        </Form.Group>
        <Button type="submit" disabled={name.trim() === "" || make.isPending}>
          Begin
        </Button>
      </div>
    </Form>
  );
}
