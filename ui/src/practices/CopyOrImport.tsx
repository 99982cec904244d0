import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { Button, Dropdown, Form, Modal } from "react-bootstrap";
import { useNavigate } from "react-router";
import { get, post } from "../wire/api";
import { wasChanged } from "../wire/changed";
import type { Practice, PracticeFile } from "../wire/contract";
import { ErrorAlert } from "../frame/shell/ErrorAlert";
import { t } from "../language/text";

/** CopyOrImport begins a practice of the teacher's own: as a copy of the one that is open, or from a file. */
export function CopyOrImport({ practice }: { practice: Practice | undefined }) {
  const navigate = useNavigate();
  const queries = useQueryClient();
  const [importing, setImporting] = useState(false);
  const opened = (file: PracticeFile) => {
    void queries.invalidateQueries({ queryKey: ["practices"] });
    void navigate(`/practices/${(file.document as { id: string }).id}/edit`);
  };
  const copy = useMutation({
    mutationFn: ({ id, name }: { id: string; name: string }) =>
      post<PracticeFile>("/practices/copy", { id, name }),
    onSuccess: opened,
  });
  return (
    <>
      <Dropdown align="end">
        <Dropdown.Toggle variant="outline-primary" size="sm">
          {t("practices.your-own")}
        </Dropdown.Toggle>
        <Dropdown.Menu>
          <Dropdown.Item
            disabled={!practice}
            onClick={() => practice && copy.mutate({ id: practice.id, name: "" })}
          >
            {practice
              ? t("practices.copy-and-change", { name: practice.name })
              : t("practices.copy-the-open-practice-and-change")}
          </Dropdown.Item>
          <Dropdown.Item onClick={() => copy.mutate({ id: "cat-cow", name: t("practices.my-sequence") })}>
            {t("practices.write-a-sequence-of-movements")}
          </Dropdown.Item>
          <Dropdown.Item onClick={() => setImporting(true)}>{t("practices.from-a-file")}</Dropdown.Item>
          <Dropdown.Item disabled={!practice} onClick={() => practice && void download(practice)}>
            {practice
              ? t("practices.as-a-file", { name: practice.name })
              : t("practices.the-open-practice-as-a-file")}
          </Dropdown.Item>
        </Dropdown.Menu>
      </Dropdown>
      {copy.isError && <ErrorAlert error={copy.error} />}
      {importing && <Import onClose={() => setImporting(false)} onDone={opened} />}
    </>
  );
}

/** idIn is the id that the text of a practice gives itself, in YAML or JSON. */
const idIn = (text: string) => encodeURIComponent(/^[\s{]*"?id"?\s*:\s*"?([\w-]+)/m.exec(text)?.[1] ?? "");

async function download(practice: Practice) {
  const file = await get<PracticeFile>(`/practices/${practice.id}/file`);
  const link = document.createElement("a");
  link.href = URL.createObjectURL(new Blob([file.text], { type: "application/yaml" }));
  link.download = `${practice.id}.yaml`;
  link.click();
  URL.revokeObjectURL(link.href);
}

function Import({ onClose, onDone }: { onClose: () => void; onDone: (file: PracticeFile) => void }) {
  const [text, setText] = useState("");
  const store = useMutation({
    mutationFn: (revision: number) => post<PracticeFile>("/practices", { text, revision }),
    onSuccess: onDone,
  });
  const there = useQuery({
    queryKey: ["practice-file", t("practices.of-the-same-id"), text],
    queryFn: () => get<PracticeFile>(`/practices/${idIn(text)}/file`),
    enabled: wasChanged(store.error),
    gcTime: 0,
  });
  return (
    <Modal show centered size="lg" onHide={onClose} aria-labelledby="import">
      <Modal.Header closeButton closeLabel={t("frame.close")}>
        <Modal.Title id="import">{t("practices.a-practice-from-a-file")}</Modal.Title>
      </Modal.Header>
      <Modal.Body>
        <Form.Control
          type="file"
          accept=".yaml,.yml,.json"
          aria-label={t("practices.file-of-a-practice")}
          onChange={(e) => {
            const file = (e.target as HTMLInputElement).files?.[0];
            if (file) void file.text().then(setText);
          }}
        />
        <Form.Control
          as="textarea"
          rows={12}
          className="mt-2 font-monospace"
          aria-label={t("practices.the-files-text")}
          placeholder={t("practices.or-paste-it-here")}
          value={text}
          onChange={(e) => setText(e.target.value)}
        />
        {store.isError && <ErrorAlert error={store.error} />}
        {wasChanged(store.error) && there.data && (
          <>
            <h3>{t("practices.the-one-that-you-have")}</h3>
            <pre className="there">{there.data.text}</pre>
            <Button
              variant="outline-danger"
              disabled={store.isPending}
              onClick={() => store.mutate(there.data.revision)}
            >
              {t("practices.replace-it")}
            </Button>
          </>
        )}
      </Modal.Body>
      <Modal.Footer>
        <Button disabled={text.trim() === "" || store.isPending} onClick={() => store.mutate(0)}>
          {t("practices.save-practice")}
        </Button>
      </Modal.Footer>
    </Modal>
  );
}
