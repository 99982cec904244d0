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
      <Modal.Header closeButton>
        <Modal.Title id="voicepage">{home.name}, with your voice</Modal.Title>
      </Modal.Header>
      <Modal.Body>
        {voice.isPending && <Loading what="Loading the recordings" />}
        {voice.isError && <ErrorAlert error={voice.error} retry={() => void voice.refetch()} />}
        {voice.data?.name === "" && (
          <p className="mb-0">
            No recorded voice speaks in this language yet. <Link to="/voices">Record one</Link>, or take the
            page without: a browser that has a voice of its own says the words.
          </p>
        )}
        {voice.data && voice.data.name !== "" && (
          <>
            <p>
              One page with {voice.data.sums.length} recordings of {voice.data.name}. It plays without a
              network, and asks nothing of anybody.
            </p>
            {voice.data.missing.length > 0 && (
              <p className="small">
                Not recorded: {voice.data.missing.join("; ")}. For that the browser&apos;s voice speaks where
                there is one, else only the tones.
              </p>
            )}
          </>
        )}
        {make.isPending && (
          <Progress done={done} label={`${Math.round(100 * done)} %`} of="How much is made" />
        )}
        {made && (
          <p role="status" className="mb-0">
            The page is ready ({Math.round(made.page.size / 1000)} kB), in your browser's downloads.
            {made.tight && " The voice was made smaller, so that it can be sent."}
            {made.page.size >= mostBytes && " Some services for messages take no more than 250 kB."}
          </p>
        )}
        {make.isError && <ErrorAlert error={make.error} />}
      </Modal.Body>
      <Modal.Footer>
        {make.isPending ? (
          <Button variant="outline-secondary" onClick={() => (cancelled.current = true)}>
            Cancel
          </Button>
        ) : (
          <Button
            disabled={!voice.data || voice.data.sums.length === 0}
            onClick={() => make.mutate(voice.data!)}
          >
            Make the page
          </Button>
        )}
      </Modal.Footer>
    </Modal>
  );
}
