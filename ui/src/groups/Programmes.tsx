import { programmesQuery } from "./queries";
import { useQuery } from "@tanstack/react-query";
import { Link } from "react-router";
import { DeletedLately } from "../frame/dialogs/BringBack";
import { ErrorAlert } from "../frame/shell/ErrorAlert";
import { rich, t, text } from "../language/text";
import { useState } from "react";
import { Form } from "react-bootstrap";
import { StartProgramme } from "../frame/editing/StartProgramme";
import { post } from "../wire/api";
import type { ProgrammeFile, ProgrammeSheet } from "../wire/contract";

/** Programmes is what a group follows over weeks. */
export function Programmes({ group }: { group: number }) {
  const programmes = useQuery(programmesQuery(group));
  if (programmes.isError)
    return <ErrorAlert error={programmes.error} retry={() => void programmes.refetch()} />;
  return (
    <section aria-label={t("groups.programmes")}>
      {programmes.data?.length === 0 && (
        <p className="text-secondary">
          {rich("groups.none-yet-under-of-a-plan", { em: <em>{t("frame.paper-and-files")}</em> })}
        </p>
      )}
      {programmes.data?.map((p) => (
        <p key={p.id} className="mb-2">
          {rich("groups.step-of", {
            link: <Link to={`/programmes/${p.id}`}>{p.name}</Link>,
            step: p.step,
            steps: p.steps,
            says: p.says,
            why: text(p.why),
          })}
        </p>
      ))}
      <FromFile />
      <DeletedLately kinds={["programme"]} />
    </section>
  );
}

/** FromFile begins a programme that somebody handed over as a file. */
function FromFile() {
  const [file, setFile] = useState<ProgrammeFile | null>(null);
  const [error, setError] = useState<Error | null>(null);
  const read = async (chosen: File | undefined) => {
    if (!chosen) return;
    try {
      setFile(JSON.parse(await chosen.text()) as ProgrammeFile);
      setError(null);
    } catch {
      setError(new Error(t("groups.is-no-file-of-a-programme", { name: chosen.name })));
    }
  };
  return (
    <>
      <Form.Group controlId="programme-file" className="mb-2">
        <Form.Label className="small text-secondary">{t("groups.begin-a-programme-from-a-file")}</Form.Label>
        <Form.Control
          type="file"
          size="sm"
          accept=".json,application/json"
          onChange={(e) => void read((e.target as HTMLInputElement).files?.[0])}
        />
      </Form.Group>
      {error && <ErrorAlert error={error} />}
      {file && (
        <StartProgramme
          title={file.programme?.name ?? t("groups.a-programme-from-a-file")}
          begin={(to) => post<ProgrammeSheet>("/programmes/file", { file, ...to })}
          onClose={() => setFile(null)}
        />
      )}
    </>
  );
}
