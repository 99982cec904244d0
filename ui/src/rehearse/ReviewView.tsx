import { reviewQuery } from "./queries";
import "./rehearse.css";
import { useMutation, useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { Button, Card, Table } from "react-bootstrap";
import { Link, useNavigate, useParams } from "react-router";
import { DeleteCard } from "../frame/dialogs/DeleteCard";
import { ErrorAlert } from "../frame/shell/ErrorAlert";
import { Loading } from "../frame/shell/Loading";
import { Shell } from "../frame/shell/Shell";
import { clock, day, plural } from "../player/format";
import { post } from "../wire/api";
import type { Rehearse, RehearsalReview, Rehearsing, ReviewMoment } from "../wire/contract";
import { StrainSheet } from "./StrainSheet";
import { text, wordOf } from "../language/text";

/** ReviewView is what is to be learned of one rehearsal. */
export function ReviewView() {
  const id = Number(useParams().id);
  const [deleting, setDeleting] = useState(false);
  const review = useQuery(reviewQuery(id));
  const navigate = useNavigate();
  const again = useMutation({
    mutationFn: (want: Rehearse) => post<Rehearsing>("/rehearsals", want),
    onSuccess: (room) => void navigate(`/rehearse/${room.id}/lead`),
  });
  const { data } = review;
  const task = data?.task;
  const level = data?.rehearsal.level ?? 0;
  return (
    <Shell view="rehearse">
      {review.isPending && <Loading what="Looking back" />}
      {review.isError && (
        <>
          <ErrorAlert error={review.error} retry={() => void review.refetch()} />
          <Link to={`/rehearse/${id}/lead`}>Resume</Link> or <Link to="/rehearse">see all rehearsals</Link>
        </>
      )}
      {again.isError && <ErrorAlert error={again.error} />}
      {data && (
        <>
          <div className="d-flex flex-wrap gap-2 align-items-baseline">
            <h1 className="me-auto mb-0">
              {data.rehearsal.title}
              {level > 0 && <small>, level {level}</small>}
            </h1>
            {task && (
              <>
                <Button
                  variant="outline-primary"
                  disabled={again.isPending}
                  onClick={() => again.mutate({ scenario: task.name, level })}
                >
                  Once more
                </Button>
                {level < task.levels.length && (
                  <Button
                    variant="outline-primary"
                    disabled={again.isPending}
                    onClick={() => again.mutate({ scenario: task.name, level: level + 1 })}
                  >
                    Level {level + 1}
                  </Button>
                )}
              </>
            )}
            <Link className="btn btn-outline-secondary" to="/rehearse">
              All rehearsals
            </Link>
            <Button variant="outline-danger" onClick={() => setDeleting(true)}>
              Delete
            </Button>
          </div>
          <p className="text-secondary">
            {day(data.rehearsal.started_ms)}, {clock(data.end_ms)} with {data.people.length} people:{" "}
            {data.rehearsal.room.toLowerCase()}. {text(data.limits)}
          </p>
          <Card className="next mb-3">
            <Card.Body>
              <h2 className="h6">To practise next</h2>
              <p className="mb-0">{text(data.digest.next)}</p>
            </Card.Body>
          </Card>
          <Aims review={data} />
          <Numbers review={data} />
          <h2>Signs to notice, and when</h2>
          <StrainSheet review={data} />
          <Moments list={data.moments} />
          <Pressed review={data} />
          <Each review={data} />
          {deleting && (
            <DeleteCard
              kind="rehearsal"
              id={id}
              name={data.rehearsal.title}
              to="/rehearse"
              onClose={() => setDeleting(false)}
            />
          )}
        </>
      )}
    </Shell>
  );
}

function Aims({ review }: { review: RehearsalReview }) {
  if (review.aims.length === 0) return null;
  return (
    <ul className="aims">
      {review.aims.map((aim) => (
        <li key={text(aim.says)} className={aim.done ? "done" : ""}>
          {text(aim.says)}: <b>{aim.done ? "reached" : "not reached"}</b>
        </li>
      ))}
    </ul>
  );
}

/** Numbers is the whole of it, in a line of numbers. */
function Numbers({ review }: { review: RehearsalReview }) {
  const { digest } = review;
  const list: [string, string][] = [
    ["to be seen", String(digest.to_see)],
    ["missed", String(digest.missed)],
    ["from sign to act", digest.to_act_ms < 0 ? "–" : `${Math.round(digest.to_act_ms / 1000)} s`],
    ["eased without need", String(digest.needless)],
    ["came beyond ease", `${digest.strained} of ${digest.people}`],
  ];
  if (review.slot_ms > 0)
    list.push([review.late_ms > 0 ? "late" : "to spare", clock(Math.abs(review.late_ms))]);
  if (review.planned_ms > 0)
    list.push(["rest at the end", `${clock(review.rest_ms)} of ${clock(review.planned_ms)}`]);
  if (review.task?.away) list.push(["looks at the count", String(review.looks)]);
  return (
    <dl className="numbers">
      {list.map(([name, value]) => (
        <div key={name}>
          <dt>{name}</dt>
          <dd>{value}</dd>
        </div>
      ))}
    </dl>
  );
}

/** whatCame is what came of something that was to be seen. */
function whatCame(m: ReviewMoment): string {
  const after = (ms: number) => `${Math.round((ms - m.at_ms) / 1000)} s later`;
  const said = m.named_ms >= 0 ? `said ${after(m.named_ms)}` : "";
  const met = m.pressed_ms >= 0 && m.by !== "signal" ? `${wordOf("verb", m.by)} ${after(m.pressed_ms)}` : "";
  if (said && met) return `${said}, ${met}`;
  if (said || met) return met || (m.by === "signal" ? said : `${said}, and its cause stayed`);
  return m.few ? "too few to do anything about it" : "missed";
}

function Moments({ list }: { list: ReviewMoment[] }) {
  if (list.length === 0) return <p>No signs to notice: the room was at ease.</p>;
  return (
    <Table size="sm" responsive className="moments">
      <thead>
        <tr>
          <th>At</th>
          <th>What</th>
          <th>People</th>
          <th>Outcome</th>
        </tr>
      </thead>
      <tbody>
        {list.map((m) => (
          <tr key={`${m.id} ${m.at_ms}`} className={m.missed ? "missed" : ""}>
            <td>{clock(m.at_ms)}</td>
            <td>{wordOf("signal", m.id)}</td>
            <td>{m.people}</td>
            <td>{whatCame(m)}</td>
          </tr>
        ))}
      </tbody>
    </Table>
  );
}

/** Pressed is what was said and eased that there was no need of, or that was something else. */
function Pressed({ review }: { review: RehearsalReview }) {
  const wrong = review.said.filter((one) => one.known && !one.there);
  const unknown = review.said.filter((one) => !one.known);
  const eased = review.eased.filter((one) => one.needless || one.at_ease > one.strained);
  if (wrong.length + unknown.length + eased.length === 0) return null;
  return (
    <>
      <h2>What you pressed</h2>
      <ul>
        {wrong.map((one) => (
          <li key={`said ${one.at_ms}`}>
            {clock(one.at_ms)}: you said “{wordOf("signal", one.id)}”;{" "}
            {one.else.length > 0
              ? `there was ${one.else.map((id) => wordOf("signal", id)).join(", ")}.`
              : "there was nothing to be seen."}
          </li>
        ))}
        {unknown.map((one) => (
          <li key={`said ${one.at_ms}`}>
            {clock(one.at_ms)}: “{wordOf("signal", one.id)}”. A simulated room does not show this.
          </li>
        ))}
        {eased.map((one) => (
          <li key={`eased ${one.at_ms}`}>
            {clock(one.at_ms)}: {wordOf("verb", one.do)}.{" "}
            {one.needless
              ? "Nobody had need of it."
              : `${one.strained} had need of it, ${one.at_ease} did not${one.lane ? ": a gentler lane leaves them what they hold" : ""}.`}
          </li>
        ))}
      </ul>
    </>
  );
}

/** Each is how it went for everybody, in numbers. */
function Each({ review }: { review: RehearsalReview }) {
  const nobody = review.people.every((p) => p.wrong === 0);
  return (
    <details>
      <summary>Each in numbers</summary>
      <Table size="sm" responsive>
        <thead>
          <tr>
            <th>Place</th>
            <th>Breaths followed</th>
            <th>Holds too long</th>
            {!nobody && <th>Sides mixed up</th>}
            <th>Most strain</th>
            <th>Shown</th>
          </tr>
        </thead>
        <tbody>
          {review.people.map((p, i) => (
            <tr key={i}>
              <td>
                {i + 1}
                {p.latecomer && ", came late"}
                {p.blocked !== "" && `, ${p.blocked} nostril blocked`}
              </td>
              <td>
                {p.followed} of {p.breaths}
              </td>
              <td>{p.holds > 0 ? `${p.exceeded} of ${p.holds}` : "–"}</td>
              {!nobody && <td>{p.wrong}</td>}
              <td>{Math.round((100 * p.highest) / Math.max(p.limit, 0.01))} % of their limit</td>
              <td>{p.shown.length > 0 ? plural(p.shown.length, "thing") : "nothing"}</td>
            </tr>
          ))}
        </tbody>
      </Table>
    </details>
  );
}
