import { importingQuery } from "./queries";
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useRef, useState } from "react";
import { Button, Form } from "react-bootstrap";
import { ErrorAlert } from "../frame/shell/ErrorAlert";
import { Loading } from "../frame/shell/Loading";
import { Message } from "../frame/shell/Message";
import { Progress } from "../frame/shell/Progress";
import { send } from "../wire/api";
import type { Imported } from "../wire/contract";
import { rich, t, text } from "../language/text";

/** AllData takes everything out as one file, and brings in what another machine has taken out, after showing what it would change. */
export function AllData() {
  const queries = useQueryClient();
  const chosen = useRef<HTMLInputElement>(null);
  const [file, setFile] = useState<File | null>(null);
  const would = useMutation({ mutationFn: (one: File) => send<Imported>("/import", one) });
  const bring = useMutation({
    mutationFn: (one: File) => send<Imported>("/import?apply=true", one),
    onSuccess: () => queries.invalidateQueries(),
  });
  const forget = () => {
    setFile(null);
    would.reset();
    if (chosen.current) chosen.current.value = "";
  };
  const done = bring.data;
  return (
    <section aria-label={t("school.all-your-data")}>
      <h2 className="mt-4">{t("school.all-your-data")}</h2>
      <p>
        {rich("school.everything-in-one-file", {
          a: (
            <a href="/api/export" download>
              {t("school.export-everything")}
            </a>
          ),
        })}
      </p>
      <Form.Group controlId="import-file">
        <Form.Label>{t("school.import-what-another-machine-exported")}</Form.Label>
        <Form.Control
          ref={chosen}
          type="file"
          accept=".json,application/json"
          disabled={would.isPending || bring.isPending}
          onChange={(e) => {
            const one = (e.target as HTMLInputElement).files?.[0] ?? null;
            bring.reset();
            would.reset();
            setFile(one);
            if (one) would.mutate(one);
          }}
        />
      </Form.Group>
      {would.isPending && <Working what={t("school.reading-what-it-would-change")} />}
      {would.isError && <ErrorAlert error={would.error} />}
      {would.data && file && !done && (
        <>
          <p className="mt-3 mb-1">
            {would.data.changes
              ? t("school.it-would-make-these-changes-all")
              : t("school.there-is-nothing-to-change")}
          </p>
          <ul>
            {would.data.lines.map((line, i) => (
              <li key={i}>{text(line)}</li>
            ))}
          </ul>
          {would.data.changes && (
            <Button disabled={bring.isPending} onClick={() => bring.mutate(file)}>
              {t("school.import")}
            </Button>
          )}{" "}
          <Button variant="outline-secondary" disabled={bring.isPending} onClick={forget}>
            {t("frame.cancel")}
          </Button>
        </>
      )}
      {bring.isPending && <Working what={t("school.bringing-it")} />}
      {bring.isError && <ErrorAlert error={bring.error} />}
      {done?.done && (
        <Message variant="light" className="mt-3">
          {rich("school.imported-the-previous-data-is-saved", {
            kept: done.kept,
            code: <code>{t("school.lantern-restore", { kept: done.kept })}</code>,
          })}
        </Message>
      )}
    </section>
  );
}

const often = 300; // ms

/** Working tells how far the file is. */
function Working({ what }: { what: string }) {
  const { data } = useQuery({ ...importingQuery, refetchInterval: often });
  if (!data || data.of === 0) return <Loading what={what} />;
  return (
    <div className="mt-3">
      <p className="mb-1" role="status">
        {data.stage === "writing"
          ? t("school.writing-of-changes", { done: data.done, of: data.of })
          : t("school.of-mb", { what, done: megabytes(data.done), of: megabytes(data.of) })}
      </p>
      <Progress done={data.done / data.of} of={what} />
    </div>
  );
}

const megabytes = (bytes: number) => (bytes / 1e6).toFixed(1);
