import { homeRecordingsQuery } from "./queries";
import { useMutation, useQuery } from "@tanstack/react-query";
import { useEffect, useRef, useState } from "react";
import { Button, Modal } from "react-bootstrap";
import { Link } from "react-router";
import { ErrorAlert } from "../frame/shell/ErrorAlert";
import { Progress } from "../frame/shell/Progress";
import { Loading } from "../frame/shell/Loading";
import type { Home, HomeRecordings } from "../wire/contract";
import { saveBlob } from "../wire/download";
import { mostBytes, voicePage } from "./voicePage";
import { rich, t } from "../language/text";

/** PageDialog makes the page that plays with a recorded voice in it, here in the browser. */
export function PageDialog({ home, onClose }: { home: Home; onClose: () => void }) {
  const [done, setDone] = useState(0);
  const cancelled = useRef(false);
  useEffect(() => () => void (cancelled.current = true), []);
  const voice = useQuery(homeRecordingsQuery(home.id));
  const make = useMutation({
    mutationFn: async (recordings: HomeRecordings) => {
      cancelled.current = false;
      setDone(0);
      const made = await voicePage(home.id, recordings, setDone, () => cancelled.current);
      if (made) saveBlob(made.page, made.name);
      return made;
    },
  });
  const made = make.data;
  return (
    <Modal show centered onHide={onClose} aria-labelledby="voicepage">
      <Modal.Header closeButton closeLabel={t("frame.close")}>
        <Modal.Title id="voicepage">{t("home.with-your-voice", { name: home.name })}</Modal.Title>
      </Modal.Header>
      <Modal.Body>
        {voice.isPending && <Loading what={t("frame.loading-the-recordings")} />}
        {voice.isError && <ErrorAlert error={voice.error} retry={() => void voice.refetch()} />}
        {voice.data?.name === "" && (
          <p className="mb-0">
            {rich("home.no-recorded-voice-speaks", {
              link: <Link to="/voices">{t("home.record-one")}</Link>,
            })}
          </p>
        )}
        {voice.data && voice.data.name !== "" && (
          <>
            <p>
              {t("home.one-page-with-recordings", { sums: voice.data.sums.length, name: voice.data.name })}
            </p>
            {voice.data.missing.length > 0 && (
              <p className="small">
                {t("home.not-recorded-for-that-the-browser", { value: voice.data.missing.join("; ") })}
              </p>
            )}
          </>
        )}
        {make.isPending && (
          <Progress done={done} label={`${Math.round(100 * done)} %`} of={t("home.how-much-is-made")} />
        )}
        {made && (
          <p role="status" className="mb-0">
            {t("home.the-page-is-ready-kb", { size: Math.round(made.page.size / 1000) })}
            {made.tight && t("home.the-voice-was-made-smaller")}
            {made.page.size >= mostBytes && t("home.some-services-for-messages-take-no")}
          </p>
        )}
        {make.isError && <ErrorAlert error={make.error} />}
      </Modal.Body>
      <Modal.Footer>
        {make.isPending ? (
          <Button variant="outline-secondary" onClick={() => (cancelled.current = true)}>
            {t("frame.cancel")}
          </Button>
        ) : (
          <Button
            disabled={!voice.data || voice.data.sums.length === 0}
            onClick={() => make.mutate(voice.data!)}
          >
            {t("home.make-the-page")}
          </Button>
        )}
      </Modal.Footer>
    </Modal>
  );
}
