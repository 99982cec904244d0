import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { Button, Form } from "react-bootstrap";
import { post } from "../wire/api";
import type { Record, Remark } from "../wire/contract";
import { ErrorAlert } from "../frame/ErrorAlert";
import { day, timeOfDay } from "../player/format";

const names: { [kind: string]: string } = { people: "people", took: "the room", correction: "correction" };

/** Remarks is what is added beside a record: the record itself is what happened, and is never edited. */
export function Remarks({ record }: { record: Record }) {
  const queries = useQueryClient();
  const id = record.class.id;
  const [text, setText] = useState("");
  const [people, setPeople] = useState("");
  const add = useMutation({
    mutationFn: (remark: Omit<Remark, "at_ms">) =>
      post<Record>(`/classes/${id}/remarks`, { ...remark, at_ms: 0 }),
    onSuccess: (fresh, remark) => {
      queries.setQueryData(["record", id], fresh);
      if (remark.kind === "people") setPeople("");
      else if (remark.kind !== "took") setText("");
    },
  });
  const mood = record.remarks.findLast((r) => r.kind === "took")?.text;
  return (
    <section className="remarks">
      <h2>How it was</h2>
      {add.isError && <ErrorAlert error={add.error} />}
      <div className="d-flex flex-wrap gap-3 align-items-center">
        <div role="group" aria-label="How the room was">
          {record.moods.map((word) => (
            <Button
              key={word}
              size="sm"
              className="me-1"
              aria-pressed={word === mood}
              variant={word === mood ? "primary" : "outline-secondary"}
              onClick={() => add.mutate({ kind: "took", text: word })}
            >
              {word}
            </Button>
          ))}
        </div>
        <Form
          className="d-flex gap-2 align-items-center"
          onSubmit={(e) => {
            e.preventDefault();
            add.mutate({ kind: "people", text: people });
          }}
        >
          <Form.Control
            size="sm"
            className="people"
            inputMode="numeric"
            aria-label="Attendance"
            placeholder={record.remarks.findLast((r) => r.kind === "people")?.text ?? "people"}
            value={people}
            onChange={(e) => setPeople(e.target.value)}
          />
          <Button type="submit" size="sm" variant="outline-secondary" disabled={people === ""}>
            Save attendance
          </Button>
        </Form>
      </div>
      <Form
        className="d-flex gap-2 mt-2"
        onSubmit={(e) => {
          e.preventDefault();
          add.mutate({ kind: "note", text });
        }}
      >
        <Form.Control
          aria-label="Note or correction"
          placeholder="a note, or what the record has wrong"
          maxLength={2000}
          value={text}
          onChange={(e) => setText(e.target.value)}
        />
        <Button type="submit" variant="outline-primary" disabled={text.trim() === ""}>
          Note
        </Button>
        <Button
          variant="outline-secondary"
          disabled={text.trim() === ""}
          onClick={() => add.mutate({ kind: "correction", text })}
        >
          Correction
        </Button>
      </Form>
      <ul className="remarklist">
        {record.remarks.map((r, i) => (
          <li key={i}>
            <small>
              {day(r.at_ms)}, {timeOfDay(r.at_ms)}
            </small>{" "}
            {names[r.kind] && <strong>{names[r.kind]}: </strong>}
            {r.text}
          </li>
        ))}
      </ul>
    </section>
  );
}
