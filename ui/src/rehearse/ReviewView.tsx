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
import { clock, day } from "../player/format";
import { post } from "../wire/api";
import type { Rehearse, RehearsalReview, Rehearsing, ReviewMoment } from "../wire/contract";
import { StrainSheet } from "./StrainSheet";
import { rich, t, text, wordOf } from "../language/text";

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
      {review.isPending && <Loading what={t("rehearse.looking-back")} />}
      {review.isError && (
        <>
          <ErrorAlert error={review.error} retry={() => void review.refetch()} />
          {rich("rehearse.or", {
            link: <Link to={`/rehearse/${id}/lead`}>{t("rehearse.resume")}</Link>,
            link2: <Link to="/rehearse">{t("rehearse.see-all-rehearsals")}</Link>,
          })}
        </>
      )}
      {again.isError && <ErrorAlert error={again.error} />}
      {data && (
        <>
          <div className="d-flex flex-wrap gap-2 align-items-baseline">
            <h1 className="me-auto mb-0">
              {data.rehearsal.title}
              {level > 0 && <small>{t("rehearse.level-2", { level })}</small>}
            </h1>
            {task && (
              <>
                <Button
                  variant="outline-primary"
                  disabled={again.isPending}
                  onClick={() => again.mutate({ scenario: task.name, level })}
                >
                  {t("rehearse.once-more")}
                </Button>
                {level < task.levels.length && (
                  <Button
                    variant="outline-primary"
                    disabled={again.isPending}
                    onClick={() => again.mutate({ scenario: task.name, level: level + 1 })}
                  >
                    {t("rehearse.level-3", { level: level + 1 })}
                  </Button>
                )}
              </>
            )}
            <Link className="btn btn-outline-secondary" to="/rehearse">
              {t("rehearse.all-rehearsals")}
            </Link>
            <Button variant="outline-danger" onClick={() => setDeleting(true)}>
              {t("frame.delete-2")}
            </Button>
          </div>
          <p className="text-secondary">
            {t("rehearse.with-people", {
              started: day(data.rehearsal.started_ms),
              end: clock(data.end_ms),
              people: data.people.length,
              room: data.rehearsal.room.toLowerCase(),
              limits: text(data.limits),
            })}
          </p>
          <Card className="next mb-3">
            <Card.Body>
              <h2 className="h6">{t("rehearse.to-practise-next")}</h2>
              <p className="mb-0">{text(data.digest.next)}</p>
            </Card.Body>
          </Card>
          <Aims review={data} />
          <Numbers review={data} />
          <h2>{t("rehearse.signs-to-notice")}</h2>
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
          {text(aim.says)}: <b>{aim.done ? t("rehearse.reached-2") : t("frame.not-reached")}</b>
        </li>
      ))}
    </ul>
  );
}

/** Numbers is the whole of it, in a line of numbers. */
function Numbers({ review }: { review: RehearsalReview }) {
  const { digest } = review;
  const list: [string, string][] = [
    [t("rehearse.to-be-seen"), String(digest.to_see)],
    [t("rehearse.missed"), String(digest.missed)],
    [t("rehearse.from-sign-to-act"), digest.to_act_ms < 0 ? "–" : `${Math.round(digest.to_act_ms / 1000)} s`],
    [t("rehearse.eased-without-need-2"), String(digest.needless)],
    [
      t("rehearse.came-beyond-ease"),
      t("rehearse.of-2", { strained: digest.strained, people: digest.people }),
    ],
  ];
  if (review.slot_ms > 0)
    list.push([
      review.late_ms > 0 ? t("rehearse.late-end") : t("frame.to-spare"),
      clock(Math.abs(review.late_ms)),
    ]);
  if (review.planned_ms > 0)
    list.push([
      t("rehearse.rest-at-the-end"),
      t("rehearse.of-3", { rest: clock(review.rest_ms), planned: clock(review.planned_ms) }),
    ]);
  if (review.task?.away) list.push([t("rehearse.looks-at-the-count"), String(review.looks)]);
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
  const after = (ms: number) => t("rehearse.s-later", { ms: Math.round((ms - m.at_ms) / 1000) });
  const said = m.named_ms >= 0 ? t("rehearse.said", { named: after(m.named_ms) }) : "";
  const met = m.pressed_ms >= 0 && m.by !== "signal" ? `${wordOf("verb", m.by)} ${after(m.pressed_ms)}` : "";
  if (said && met) return `${said}, ${met}`;
  if (said || met) return met || (m.by === "signal" ? said : t("rehearse.and-its-cause-stayed", { said }));
  return m.few ? t("rehearse.too-few-to-do-anything-about") : t("rehearse.missed");
}

function Moments({ list }: { list: ReviewMoment[] }) {
  if (list.length === 0) return <p>{t("rehearse.no-signs-to-notice-the-room")}</p>;
  return (
    <Table size="sm" responsive className="moments">
      <thead>
        <tr>
          <th>{t("rehearse.at")}</th>
          <th>{t("rehearse.what")}</th>
          <th>{t("rehearse.people-2")}</th>
          <th>{t("rehearse.outcome")}</th>
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
      <h2>{t("rehearse.what-you-pressed")}</h2>
      <ul>
        {wrong.map((one) => (
          <li key={`said ${one.at_ms}`}>
            {t("rehearse.you-said", {
              at: clock(one.at_ms),
              value: wordOf("signal", one.id),
              else:
                one.else.length > 0
                  ? t("rehearse.there-was", { value: one.else.map((id) => wordOf("signal", id)).join(", ") })
                  : t("rehearse.there-was-nothing-to-be-seen"),
            })}
          </li>
        ))}
        {unknown.map((one) => (
          <li key={`said ${one.at_ms}`}>
            {t("rehearse.a-simulated-room-does-not-show", {
              at: clock(one.at_ms),
              value: wordOf("signal", one.id),
            })}
          </li>
        ))}
        {eased.map((one) => (
          <li key={`eased ${one.at_ms}`}>
            {clock(one.at_ms)}: {wordOf("verb", one.do)}.{" "}
            {one.needless
              ? t("rehearse.nobody-had-need")
              : t("rehearse.had-need-of-it-did", {
                  strained: one.strained,
                  atEase: one.at_ease,
                  lane: one.lane,
                })}
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
      <summary>{t("rehearse.each-in-numbers")}</summary>
      <Table size="sm" responsive>
        <thead>
          <tr>
            <th>{t("rehearse.place")}</th>
            <th>{t("rehearse.breaths-followed")}</th>
            <th>{t("rehearse.holds-too-long")}</th>
            {!nobody && <th>{t("rehearse.sides-mixed-up")}</th>}
            <th>{t("rehearse.most-strain")}</th>
            <th>{t("rehearse.shown")}</th>
          </tr>
        </thead>
        <tbody>
          {review.people.map((p, i) => (
            <tr key={i}>
              <td>
                {i + 1}
                {p.latecomer && t("rehearse.came-late")}
                {p.blocked !== "" && t("rehearse.nostril-blocked", { blocked: p.blocked })}
              </td>
              <td>{t("rehearse.of-4", { followed: p.followed, breaths: p.breaths })}</td>
              <td>{p.holds > 0 ? t("rehearse.of-5", { exceeded: p.exceeded, holds: p.holds }) : "–"}</td>
              {!nobody && <td>{p.wrong}</td>}
              <td>
                {t("rehearse.of-their-limit", {
                  highest: Math.round((100 * p.highest) / Math.max(p.limit, 0.01)),
                })}
              </td>
              <td>
                {p.shown.length > 0 ? t("rehearse.things", { shown: p.shown.length }) : t("frame.nothing")}
              </td>
            </tr>
          ))}
        </tbody>
      </Table>
    </details>
  );
}
