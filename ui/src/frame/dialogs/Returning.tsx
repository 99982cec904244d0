import "./given.css";
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { Button } from "react-bootstrap";
import { get, post } from "../../wire/api";
import type { Record, RemarkAdd, ReturningNote, ReturningNotes } from "../../wire/contract";
import { day } from "../../player/format";
import { ErrorAlert } from "../shell/ErrorAlert";
import { t } from "../../language/text";

/** returningQuery asks for the notes of a group's classes that nobody has used or put away. */
const returningQuery = (group: number) => ({
  queryKey: ["returning", group],
  queryFn: () => get<ReturningNotes>(`/groups/${group}/notes`),
});

/** How many are shown at first. */
const first = 4;

/**
 * Returning shows the notes of past classes of a group until they are used or put away. It is quiet where there are none, and
 * where they cannot be had: the class is what matters there.
 */
export function Returning({ group }: { group: number }) {
  const notes = useQuery({ ...returningQuery(group), enabled: group > 0 });
  const [all, setAll] = useState(false);
  const list = notes.data?.notes ?? [];
  if (list.length === 0) return null;
  return (
    <section className="returning">
      <h2>{t("frame.your-notes")}</h2>
      <ul>
        {list.slice(0, all ? undefined : first).map((note) => (
          <Note key={`${note.class_id} ${note.text}`} note={note} group={group} />
        ))}
      </ul>
      {!all && list.length > first && (
        <Button variant="link" size="sm" onClick={() => setAll(true)}>
          {t("frame.more", { list: list.length - first })}
        </Button>
      )}
    </section>
  );
}

function Note({ note, group }: { note: ReturningNote; group: number }) {
  const queries = useQueryClient();
  const settle = useMutation({
    mutationFn: (kind: "used" | "put-away") =>
      post<Record>(`/classes/${note.class_id}/remarks`, {
        kind,
        text: note.text,
        newest: 0,
      } satisfies RemarkAdd),
    onSuccess: () => queries.invalidateQueries({ queryKey: returningQuery(group).queryKey }),
  });
  return (
    <li>
      <span>
        {note.next && <strong>{t("frame.for-next-time")} </strong>}
        {note.text}{" "}
        <small>
          {note.title}, {day(note.at_ms)}
        </small>
      </span>
      <Button
        size="sm"
        variant="outline-primary"
        disabled={settle.isPending}
        onClick={() => settle.mutate("used")}
      >
        {t("frame.used")}
      </Button>
      <Button
        size="sm"
        variant="outline-secondary"
        disabled={settle.isPending}
        onClick={() => settle.mutate("put-away")}
      >
        {t("frame.put-away")}
      </Button>
      {settle.isError && <ErrorAlert error={settle.error} />}
    </li>
  );
}
