import { settingsQuery } from "../wire/queries";
import "./keys.css";
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { Alert, Button, Form } from "react-bootstrap";
import { EditedNotice } from "../frame/editing/EditedNotice";
import { ErrorAlert } from "../frame/shell/ErrorAlert";
import { Loading } from "../frame/shell/Loading";
import { Shell } from "../frame/shell/Shell";
import { useEdited } from "../frame/editing/useEdited";
import { KeyTable } from "../frame/keys/KeyTable";
import { cardText, keyed, letterOf, withLetter } from "../frame/keys/letters";
import { put } from "../wire/api";
import { readAgain } from "../wire/changed";
import type { Path } from "../frame/editing/merge";
import type { Settings } from "../wire/contract";
import { Remote } from "./Remote";
import { t } from "../language/text";

/** KeysView is how the teacher leads by hand: letters, pedals and remotes, to be changed, tried and printed. */
export function KeysView() {
  const settings = useQuery(settingsQuery);
  return (
    <Shell view="school">
      {settings.isError && <ErrorAlert error={settings.error} retry={() => void settings.refetch()} />}
      {settings.isPending && <Loading what={t("keys.loading-your-keys")} />}
      {settings.data && <Edit stored={settings.data} />}
    </Shell>
  );
}

/** Typed is what this page changes, and the revision that it was made from. */
type Typed = Pick<Settings, "keys" | "revision">;

const typed = ({ keys, revision }: Settings): Typed => ({ keys, revision });

/** keyName is what this page calls a field of the keys; null for one that nobody types. */
function keyName([, field, part]: Path): string | null {
  switch (field) {
    case "letters":
      return t("keys.key-for", { part: cardText(String(part)) });
    case "no_letters":
      return t("keys.letters-and-digits-do-nothing");
    case "remote":
      return t("keys.pedals-and-remotes");
  }
  return null;
}

/** Edit changes the keys; what else is stored goes along as it was read last. */
function Edit({ stored }: { stored: Settings }) {
  const edited = useEdited(typed(stored), "keys");
  const { draft, setDraft, changed } = edited;
  const { keys } = draft;
  const queries = useQueryClient();
  const store = useMutation({
    mutationFn: (sent: Typed) => put<Settings>("/settings", { ...stored, ...sent }),
    onError: readAgain(queries, settingsQuery.queryKey),
    onSuccess: (now, sent) => {
      edited.saved(sent, typed(now));
      queries.setQueryData(settingsQuery.queryKey, now);
    },
  });
  const change = (next: typeof keys) => {
    setDraft({ ...draft, keys: next });
    store.reset();
  };
  const usual = { ...keys, no_letters: false };
  return (
    <>
      <div className="d-flex flex-wrap gap-2 align-items-center d-print-none">
        <h1 className="me-auto">{t("keys.keys-and-pedals")}</h1>
        <Button variant="outline-secondary" onClick={() => window.print()}>
          {t("keys.print-the-card-of-keys")}
        </Button>
        <Button disabled={!changed || store.isPending} onClick={() => store.mutate(draft)}>
          {t("frame.save")}
        </Button>
      </div>
      <EditedNotice what={t("keys.these-keys")} error={store.error} edited={edited} nameOf={keyName} />
      {store.isSuccess && !changed && <Alert variant="success">{t("frame.saved")}</Alert>}
      <Remote keys={keys} meanings={stored.meanings ?? []} onChange={change} />
      <section className="d-print-none">
        <h2>{t("keys.letters")}</h2>
        <p className="text-secondary">{t("keys.while-a-class-is-led-natural")}</p>
        <Form.Check
          type="switch"
          id="no-letters"
          className="mb-3"
          label={t("keys.letters-and-digits-do-nothing-i")}
          checked={keys.no_letters}
          onChange={(e) => change({ ...keys, no_letters: e.target.checked })}
        />
        <div className="letters">
          {keyed.map(({ id }) => (
            <label key={id}>
              <Form.Control
                className="letter"
                aria-label={t("keys.key-for-2", { id: cardText(id) })}
                placeholder={t("frame.off")}
                disabled={keys.no_letters}
                value={letterOf(id, usual).toUpperCase()}
                onFocus={(e) => e.target.select()}
                onChange={(e) => {
                  const typed = e.target.value.toLowerCase().slice(-1);
                  if (/^[a-z0-9]?$/.test(typed)) change(withLetter(keys, id, typed));
                }}
              />
              <span>{cardText(id)}</span>
            </label>
          ))}
        </div>
        <Button
          variant="outline-secondary"
          className="mt-3"
          disabled={Object.keys(keys.letters).length === 0}
          onClick={() => change({ ...keys, letters: {} })}
        >
          {t("keys.the-usual-letters")}
        </Button>
      </section>
      <section className="d-none d-print-block">
        <h1>{t("keys.keys-while-leading")}</h1>
        <KeyTable settings={{ ...stored, keys }} />
      </section>
    </>
  );
}
