import { recordQuery } from "./queries";
import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { Button, Form } from "react-bootstrap";
import { post } from "../wire/api";
import { readAgain } from "../wire/changed";
import type { Record, RemarkAdd } from "../wire/contract";
import { ErrorAlert } from "../frame/shell/ErrorAlert";
import { useEdited } from "../frame/editing/useEdited";
import { day, timeOfDay } from "../player/format";
import { t, wordOf } from "../language/text";

const names = (): { [kind: string]: string } => ({
  people: t("taught.people"),
  gentler: t("taught.took-the-gentler-lane"),
  took: t("taught.the-room"),
  correction: t("taught.correction-2"),
  next: t("taught.for-next-time-2"),
  used: t("taught.used"),
  "put-away": t("taught.put-away"),
});

type Adding = Omit<RemarkAdd, "newest">;

const newestOf = (record: Record, kind: string) => record.remarks.findLast((r) => r.kind === kind);

/** Remarks is what is added beside a record: the record itself is what happened, and is never edited. */
export function Remarks({ record }: { record: Record }) {
  const queries = useQueryClient();
  const id = record.class.id;
  const { draft: text, setDraft: setText } = useEdited("", `note ${id}`);
  const add = useMutation({
    mutationFn: ({ kind, text }: Adding) =>
      post<Record>(`/classes/${id}/remarks`, {
        kind,
        text,
        newest: newestOf(record, kind)?.id ?? 0,
      } satisfies RemarkAdd),
    onError: readAgain(queries, recordQuery(id).queryKey),
    onSuccess: (fresh, remark) => {
      queries.setQueryData(recordQuery(id).queryKey, fresh);
      if (["note", "correction", "next"].includes(remark.kind)) setText("");
      void queries.invalidateQueries({ queryKey: ["returning"] });
    },
  });
  const mood = newestOf(record, "took")?.text;
  return (
    <section className="remarks">
      <h2>{t("taught.how-it")}</h2>
      {add.isError && <ErrorAlert error={add.error} />}
      <div className="d-flex flex-wrap gap-3 align-items-center">
        <div role="group" aria-label={t("taught.how-the-room")}>
          {record.moods.map((word) => (
            <Button
              key={word}
              size="sm"
              className="me-1"
              aria-pressed={word === mood}
              variant={word === mood ? "primary" : "outline-secondary"}
              onClick={() => add.mutate({ kind: "took", text: word })}
            >
              {wordOf("mood", word)}
            </Button>
          ))}
        </div>
        <Count
          kind="people"
          label={t("taught.attendance")}
          unit={t("taught.people")}
          record={record}
          add={add.mutateAsync}
        />
        {record.passages.some((p) => p.lanes.length > 0) && (
          <Count
            kind="gentler"
            label={t("taught.how-many-took-the-gentler-lane")}
            unit={t("taught.gentler")}
            record={record}
            add={add.mutateAsync}
          />
        )}
      </div>
      <Form
        className="noting d-flex flex-wrap gap-2 mt-2"
        onSubmit={(e) => {
          e.preventDefault();
          add.mutate({ kind: "note", text });
        }}
      >
        <Form.Control
          aria-label={t("taught.note-or-correction")}
          placeholder={t("taught.a-note-or-a-correction")}
          maxLength={2000}
          value={text}
          onChange={(e) => setText(e.target.value)}
        />
        <Button type="submit" variant="outline-primary" disabled={text.trim() === ""}>
          {t("frame.note")}
        </Button>
        <Button
          variant="outline-primary"
          disabled={text.trim() === ""}
          onClick={() => add.mutate({ kind: "next", text })}
        >
          {t("taught.for-next-time")}
        </Button>
        <Button
          variant="outline-secondary"
          disabled={text.trim() === ""}
          onClick={() => add.mutate({ kind: "correction", text })}
        >
          {t("taught.correction")}
        </Button>
      </Form>
      <ul className="remarklist">
        {record.remarks.map((r, i) => (
          <li key={i}>
            <small>
              {day(r.at_ms)}, {timeOfDay(r.at_ms)}
            </small>{" "}
            {names()[r.kind] && <strong>{names()[r.kind]}: </strong>}
            {r.text}
          </li>
        ))}
      </ul>
    </section>
  );
}

type CountProps = {
  kind: "people" | "gentler";
  label: string;
  unit: string;
  record: Record;
  add: (remark: Adding) => Promise<unknown>;
};

/** Count is a number of people that the teacher counted; what was typed stays where it cannot be stored. */
function Count({ kind, label, unit, record, add }: CountProps) {
  const [text, setText] = useState("");
  return (
    <Form
      className="d-flex gap-2 align-items-center"
      onSubmit={(e) => {
        e.preventDefault();
        void add({ kind, text }).then(
          () => setText(""),
          () => undefined, // it is told above
        );
      }}
    >
      <Form.Control
        size="sm"
        className="people"
        inputMode="numeric"
        aria-label={label}
        title={label}
        placeholder={newestOf(record, kind)?.text ?? unit}
        value={text}
        onChange={(e) => setText(e.target.value)}
      />
      <Button type="submit" size="sm" variant="outline-secondary" disabled={text === ""}>
        {kind === "people" ? t("taught.save-attendance") : t("taught.save-gentler-lane")}
      </Button>
    </Form>
  );
}
