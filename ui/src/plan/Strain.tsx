import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { Form } from "react-bootstrap";
import { Link } from "react-router";
import { ErrorAlert } from "../frame/shell/ErrorAlert";
import { Loading } from "../frame/shell/Loading";
import { get } from "../wire/api";
import type { Expected, ExpectedPassage } from "../wire/contract";
import type { Editor } from "./usePlanEditor";
import { rich, t, text } from "../language/text";

/** Strain holds the plan against a simulated room: where it would be beyond what is easy, for how many. */
export function Strain({ id, editor }: { id: number; editor: Editor }) {
  const [open, setOpen] = useState(false);
  const [room, setRoom] = useState("newcomers");
  const { summary, document } = editor;
  const expected = useQuery({
    // What is on the screen is what is asked about.
    queryKey: ["expected", id, room, JSON.stringify(document)],
    queryFn: async () => {
      await editor.save();
      return get<Expected>(`/plans/${id}/expected?room=${room}`);
    },
    enabled: open,
    gcTime: 0,
    placeholderData: (before) => before,
  });
  const whole = Math.max(summary.length_ms, summary.slot_ms, 1);
  const data = expected.data?.passages.length === summary.passages.length ? expected.data : undefined;
  const people = data?.rooms.find((r) => r.name === data.room)?.people ?? 1;
  return (
    <details className="strain" onToggle={(e) => setOpen(e.currentTarget.open)}>
      <summary>{t("plan.try-with-a-simulated-group")}</summary>
      {open && expected.isPending && <Loading what={t("plan.simulating-200-groups")} />}
      {expected.isError && <ErrorAlert error={expected.error} retry={() => void expected.refetch()} />}
      {data && (
        <>
          <div className="strip" aria-hidden>
            {summary.passages.map((p, i) => (
              <span
                key={i}
                style={{ left: `${(100 * p.start_ms) / whole}%`, width: `${(100 * p.length_ms) / whole}%` }}
              >
                <i style={{ height: `${(100 * (data.passages[i]?.median ?? 0)) / people}%` }} />
              </span>
            ))}
          </div>
          <Form.Group controlId="simulated" className="which">
            <Form.Label>{t("frame.room")}</Form.Label>
            <Form.Select size="sm" value={room} onChange={(e) => setRoom(e.target.value)}>
              {data.rooms.map((r) => (
                <option key={r.name} value={r.name}>
                  {r.title}, {r.people}
                </option>
              ))}
            </Form.Select>
            <Link to={`/rehearse?plan=${id}`}>{t("frame.rehearse-it")}</Link>
            <small className="text-secondary">{text(data.limits)}</small>
          </Form.Group>
          <ul aria-live="polite">
            {data.passages.every((p) => p.high === 0) && <li>{t("plan.easy-for-all", { people })}</li>}
            {data.passages.map((p, i) =>
              p.high === 0 ? null : (
                <li key={i}>
                  {rich("plan.from-round-of-beyond", {
                    i: i + 1,
                    name: summary.passages[i]!.name,
                    fromRound: p.from_round,
                    strong: <strong>{range(p)}</strong>,
                    people,
                    value: p.ways.map((way) => `; ${text(way.says)} ${range(way)}`).join(""),
                  })}
                </li>
              ),
            )}
          </ul>
        </>
      )}
    </details>
  );
}

function range({ low, high }: Pick<ExpectedPassage, "low" | "high">): string {
  return low === high ? String(low) : t("plan.to", { low, high });
}
