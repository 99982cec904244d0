import { programmeQuery } from "./queries";
import "./programmes.css";
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { Button, Form } from "react-bootstrap";
import { Link, useParams } from "react-router";
import { DeleteCard } from "../frame/dialogs/DeleteCard";
import { EditedNotice } from "../frame/editing/EditedNotice";
import { ErrorAlert } from "../frame/shell/ErrorAlert";
import { Loading } from "../frame/shell/Loading";
import { ProgrammeForm } from "../frame/editing/ProgrammeForm";
import { Shell } from "../frame/shell/Shell";
import { useEdited, wasTyped } from "../frame/editing/useEdited";
import { day } from "../player/format";
import { post, put } from "../wire/api";
import { readAgain } from "../wire/changed";
import type { Path as Field } from "../frame/editing/merge";
import type { ProgrammeClass, ProgrammeSave, ProgrammeSheet } from "../wire/contract";
import { HomePageDialog } from "./HomePageDialog";
import { Path } from "./Path";
import { classStates } from "../frame/editing/classStates";
import { StartProgramme } from "../frame/editing/StartProgramme";
import { rich, t, text } from "../language/text";

/** ProgrammeView is a programme over time: where the group is, why, and what comes. */
export function ProgrammeView() {
  const id = Number(useParams().id);
  const sheet = useQuery(programmeQuery(id));
  return (
    <Shell view="groups">
      {sheet.isPending && <Loading what={t("programmes.opening-the-programme")} />}
      {sheet.isError && <ErrorAlert error={sheet.error} retry={() => void sheet.refetch()} />}
      {sheet.data && <Sheet key={id} sheet={sheet.data} />}
    </Shell>
  );
}

function Sheet({ sheet }: { sheet: ProgrammeSheet }) {
  const { card, classes, programme } = sheet;
  const queries = useQueryClient();
  const [editing, setEditing] = useState(() => wasTyped(typedName(sheet)));
  const [deleting, setDeleting] = useState(false);
  const [handing, setHanding] = useState<"group" | "home" | null>(null);
  const keep = (fresh: ProgrammeSheet) => queries.setQueryData(programmeQuery(card.id).queryKey, fresh);
  const shift = useMutation({
    mutationFn: () => post<ProgrammeSheet>(`/programmes/${card.id}/shift`, {}),
    onSuccess: keep,
  });
  return (
    <>
      <h1>{card.name}</h1>
      <p className="lead">
        {card.group && <Link to={`/groups/${card.group.id}`}>{card.group.name}</Link>}
        {card.group && " · "}
        {rich("programmes.step-of", {
          step: card.step,
          steps: card.steps,
          strong: <strong>{card.says}</strong>,
          why: text(card.why),
        })}
      </p>
      <Path sheet={sheet} />
      <div className="d-flex flex-wrap gap-2 mt-3 mb-3">
        <Button variant="outline-primary" aria-expanded={editing} onClick={() => setEditing(!editing)}>
          {t("programmes.change-the-steps")}
        </Button>
        <Button variant="outline-secondary" disabled={shift.isPending} onClick={() => shift.mutate()}>
          {t("programmes.skip-this-week-move-the-rest", { days: programme.days })}
        </Button>
        <Button variant="outline-secondary" onClick={() => setHanding("group")}>
          {t("programmes.give-it-to-another-group")}
        </Button>
        <Button variant="outline-secondary" onClick={() => setHanding("home")}>
          {t("programmes.page-for-people-at-home")}
        </Button>
        <a className="btn btn-outline-secondary" href={`/api/programmes/${card.id}/file`} download>
          {t("programmes.as-a-file")}
        </a>
        <a className="btn btn-outline-secondary" href={`/api/programmes/${card.id}/files`}>
          {t("programmes.hand-over-to-a-substitute")}
        </a>
        <Button variant="link" className="text-danger" onClick={() => setDeleting(true)}>
          {t("frame.delete-2")}
        </Button>
      </div>
      {shift.isError && <ErrorAlert error={shift.error} />}
      {editing && (
        <Edit
          sheet={sheet}
          onSaved={(fresh) => {
            keep(fresh);
            setEditing(false);
          }}
        />
      )}
      <Classes classes={classes} />
      {handing === "group" && (
        <StartProgramme
          title={t("programmes.for-another-group", { name: card.name })}
          begin={(to) => post<ProgrammeSheet>(`/programmes/${card.id}/give`, to)}
          onClose={() => setHanding(null)}
        />
      )}
      {handing === "home" && <HomePageDialog card={card} onClose={() => setHanding(null)} />}
      {deleting && (
        <DeleteCard
          kind="programme"
          id={card.id}
          name={card.name}
          to={card.group ? `/groups/${card.group.id}` : "/"}
          onClose={() => setDeleting(false)}
        />
      )}
    </>
  );
}

const fieldNames = (): { [field: string]: string } => ({
  name: t("frame.name"),
  passage: t("programmes.passage"),
  steps: t("programmes.steps"),
  by: t("programmes.goes-on"),
  times: t("programmes.times-in-a-row"),
  days: t("programmes.days-between-two-classes"),
  missed: t("programmes.after-a-class-that-was-missed"),
  eased: t("programmes.after-a-class-that-was-eased"),
  ceiling: t("programmes.at-most-in-minutes"),
  gap: t("frame.after-a-gap"),
  repeat: t("frame.steps-to-repeat"),
});

const fieldName = ([, field = ""]: Field) => fieldNames()[field] ?? null;

const typedName = (sheet: ProgrammeSheet) => `programme ${sheet.card.id}`;

function Edit({ sheet, onSaved }: { sheet: ProgrammeSheet; onSaved: (fresh: ProgrammeSheet) => void }) {
  const { programme, revision } = sheet;
  const edited = useEdited<ProgrammeSave>({ programme, revision }, typedName(sheet));
  const { draft, setDraft } = edited;
  const queries = useQueryClient();
  const save = useMutation({
    mutationFn: () => put<ProgrammeSheet>(`/programmes/${sheet.card.id}`, draft),
    onError: readAgain(queries, programmeQuery(sheet.card.id).queryKey),
    onSuccess: (fresh) => {
      edited.leave();
      onSaved(fresh);
    },
  });
  return (
    <Form
      className="edit"
      onSubmit={(e) => {
        e.preventDefault();
        save.mutate();
      }}
    >
      <EditedNotice
        what={t("programmes.this-programme")}
        error={save.error}
        edited={edited}
        nameOf={fieldName}
      />
      <ProgrammeForm
        programme={draft.programme}
        passages={sheet.passages}
        onChange={(next) => setDraft({ ...draft, programme: next })}
      />
      <p className="mt-3">
        <Button type="submit" disabled={save.isPending}>
          {t("programmes.save-what-comes-follows")}
        </Button>
      </p>
    </Form>
  );
}

/** Classes is what was taught and what comes, in words. */
function Classes({ classes }: { classes: ProgrammeClass[] }) {
  return (
    <table className="table classes">
      <thead>
        <tr>
          <th scope="col">{t("frame.class")}</th>
          <th scope="col">{t("frame.day-2")}</th>
          <th scope="col">{t("frame.step")}</th>
          <th scope="col">{t("programmes.how-it-went")}</th>
        </tr>
      </thead>
      <tbody>
        {classes.map((c) => (
          <tr key={`${c.plan_id} ${c.class_id}`} className={c.state === "coming" ? "coming" : undefined}>
            <td>{c.number}</td>
            <td>
              {c.class_id > 0 ? (
                <Link to={`/taught/${c.class_id}`}>{day(c.starts_ms)}</Link>
              ) : (
                <Link to={`/plan/${c.plan_id}`}>{day(c.starts_ms)}</Link>
              )}
            </td>
            <td>
              {c.step}. {c.says}
            </td>
            <td>
              {classStates()[c.state]}
              {c.changed && t("programmes.changed-by")}
              {c.why && `. ${text(c.why)}`}
            </td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}
