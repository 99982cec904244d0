import { useBegin } from "../frame/editing/useBegin";
import { todayQuery } from "../wire/queries";
import "./today.css";
import playFill from "bootstrap-icons/icons/play-fill.svg?raw";
import { useMutation, useQuery } from "@tanstack/react-query";
import { lazy, Suspense, useRef, useState } from "react";
import { Button, ButtonGroup, Card, Col, Row } from "react-bootstrap";
import { Link, useNavigate } from "react-router";
import { Icon } from "../frame/shell/Icon";
import { post } from "../wire/api";
import type { Advice, ClassCard, Plan, PlanCard, Record, Today } from "../wire/contract";
import { DeletedLately } from "../frame/dialogs/BringBack";
import { Shell } from "../frame/shell/Shell";
import { ErrorAlert } from "../frame/shell/ErrorAlert";
import { Message } from "../frame/shell/Message";
import { Loading } from "../frame/shell/Loading";
import { atMidnight } from "../player/days";
import { clock, day, minutes, timeOfDay } from "../player/format";
import { PlanLinks } from "./PlanLinks";
import { rich, t, text, wordOf } from "../language/text";

const TemplatesCard = lazy(async () => ({ default: (await import("./TemplatesCard")).TemplatesCard }));
const FindPlan = lazy(async () => ({ default: (await import("./FindPlan")).FindPlan }));
const Returning = lazy(async () => ({ default: (await import("../frame/dialogs/Returning")).Returning }));
const AskHome = lazy(async () => ({ default: (await import("../frame/dialogs/AskHome")).AskHome }));
const Welcome = lazy(async () => ({ default: (await import("./Welcome")).Welcome }));
const Week = lazy(async () => ({ default: (await import("./Week")).Week }));
const BeforeLeading = lazy(async () => ({
  default: (await import("../frame/dialogs/BeforeLeading")).BeforeLeading,
}));

export function TodayView() {
  const today = useQuery(todayQuery);
  return (
    <Shell view="today">
      {today.isPending && <Loading what={t("today.loading-today")} />}
      {today.isError && <ErrorAlert error={today.error} retry={() => void today.refetch()} />}
      {today.data && <Page today={today.data} />}
    </Shell>
  );
}

/** inWeek tells whether a class stands in the coming week, which has a place of its own. */
function inWeek({ starts_ms: starts }: PlanCard, now: number): boolean {
  return starts !== null && starts >= atMidnight(now) && starts < atMidnight(now, 7);
}

function Page({ today }: { today: Today }) {
  const plans = today.failed.find((f) => f.part === "plans");
  return (
    <>
      <AboutTheFile today={today} />
      <Row className="g-4">
        <Col lg={7}>
          <Missing today={today} part="plans" what={t("today.the-plans")} />
          {today.next && <Next plan={today.next} advice={today.advice} now={today.now_ms} />}
          {!today.next && !plans && (
            <Suspense>
              {today.plans.length === 0 && today.taught.length === 0 ? (
                <Welcome newPlan={<NewPlan variant="outline-primary" />} />
              ) : (
                <NothingNext />
              )}
            </Suspense>
          )}
          <Missing today={today} part="advice" what={t("today.what-the-record-suggests")} />
          <Suspense>
            {today.next?.group && <Returning group={today.next.group.id} />}
            {today.next?.group && <AskHome group={today.next.group.id} />}
          </Suspense>
          {today.last && <Last record={today.last} now={today.now_ms} />}
          <Missing today={today} part="last" what={t("today.the-last-class-of-this-group")} />
        </Col>
        <Col lg={5}>
          <Suspense>
            {(today.next?.starts_ms || today.plans.length > 0) && (
              <Week plans={today.next ? [today.next, ...today.plans] : today.plans} now={today.now_ms} />
            )}
          </Suspense>
          <Others
            plans={today.plans.filter((p) => !inWeek(p, today.now_ms))}
            more={today.more}
            now={today.now_ms}
          />
          <Recent classes={today.taught.slice(0, 5)} now={today.now_ms} />
          <Missing today={today} part="taught" what={t("today.the-list-of-taught-classes")} />
        </Col>
      </Row>
    </>
  );
}

/** Missing says why a part of the page is not there. All others are. */
function Missing({ today, part, what }: { today: Today; part: string; what: string }) {
  const failed = today.failed.find((f) => f.part === part);
  if (!failed) return null;
  return (
    <Message variant="warning">
      <strong>{t("today.cannot-be-shown", { what })}</strong> {text(failed.say)}
    </Message>
  );
}

/** AboutTheFile is what a teacher has to know of the data file before anything else. */
function AboutTheFile({ today }: { today: Today }) {
  const { file, damaged } = today;
  return (
    <>
      {file.made && (
        <Message variant="light">
          {rich("today.if-your-classes-should-be-here", {
            strong: <strong>{t("today.a-new-data-file-was-made")}</strong>,
            path: file.path,
            code: <code>{t("today.lantern-serve-data-file")}</code>,
          })}
        </Message>
      )}
      {file.incomplete && (
        <Message variant="warning">
          {rich("today.looks-like-a-copy", {
            strong: <strong>{t("today.the-last-classes-may-be-missing")}</strong>,
            path: file.path,
          })}
        </Message>
      )}
      {damaged.length > 0 && (
        <Message variant="warning">
          {rich("today.and-left-out-of-lists-sums", {
            strong: (
              <strong>
                {damaged.length === 1
                  ? t("today.one-entry-of-the-data-file")
                  : t("today.entries-of-the-data-file", { damaged: damaged.length })}
              </strong>
            ),
            damaged: damaged.length === 1,
          })}
          <ul className="mb-0">
            {damaged.map((entry) => (
              <li key={entry.name}>
                {entry.name}: {text(entry.why)}
              </li>
            ))}
          </ul>
        </Message>
      )}
    </>
  );
}

function Next({ plan, advice, now }: { plan: PlanCard; advice: Advice[]; now: number }) {
  const [asking, setAsking] = useState<"" | "whole" | "fitted">("");
  const ends = (plan.starts_ms ?? 0) + plan.slot_ms;
  const timed = plan.starts_ms !== null && plan.slot_ms > 0 && now < ends - 60_000;
  const late = timed ? Math.floor((now - plan.starts_ms!) / 60_000) : 0;
  return (
    <Card className="next mb-4">
      <Card.Body>
        <p className="eyebrow">
          {plan.starts_ms === null
            ? t("today.next")
            : t("today.next-2", { starts: whenInWords(plan.starts_ms, now) })}
        </p>
        <h1>{plan.title || t("frame.untitled")}</h1>
        <p className="text-secondary">
          {plan.group &&
            t("today.people", {
              name: plan.group.name,
              size: plan.group.size,
              value: wordOf("level", plan.group.level),
            })}{" "}
          {t("today.planned", { length: clock(plan.length_ms) })}{" "}
          {plan.slot_ms > 0 && t("frame.of", { slot: minutes(plan.slot_ms) })}
        </p>
        <ol className="order">
          {plan.passages.map((name, i) => (
            <li key={i}>{name}</li>
          ))}
        </ol>
        <div className="d-flex gap-2 flex-wrap">
          {late > 0 && (
            <Button size="lg" disabled={plan.wrong} onClick={() => setAsking("fitted")} autoFocus>
              <Icon of={playFill} /> {t("today.min-late-fit", { late, ends: timeOfDay(ends) })}
            </Button>
          )}
          <Button
            size="lg"
            variant={late > 0 ? "outline-primary" : "primary"}
            disabled={plan.wrong}
            onClick={() => setAsking("whole")}
            autoFocus={late <= 0}
          >
            {late <= 0 && <Icon of={playFill} />} {t("today.lead-this-class")}
          </Button>
          <Link className="btn btn-lg btn-outline-secondary" to={`/plan/${plan.id}`}>
            {t("today.change-the-plan")}
          </Link>
        </div>
        {advice.length > 0 && (
          <>
            <h2 className="mt-4">{t("today.suggested-from-past-classes")}</h2>
            <ul className="advised">
              {advice.map((a) => (
                <li key={a.key}>
                  <strong>{text(a.say)}</strong> {text(a.why)}
                </li>
              ))}
            </ul>
          </>
        )}
        {plan.wrong && <p className="text-danger mt-2">{t("today.this-plan-has-errors-correct-them")}</p>}
      </Card.Body>
      <Suspense>
        {asking && <BeforeLeading plan={plan.id} fit={asking === "fitted"} onClose={() => setAsking("")} />}
      </Suspense>
    </Card>
  );
}

function whenInWords(starts: number, now: number): string {
  const inMinutes = Math.round((starts - now) / 60_000);
  const at = t("today.at", { starts: day(starts, now), starts2: timeOfDay(starts) });
  if (inMinutes < 0) return t("today.min-ago", { at, inMinutes: -inMinutes });
  return inMinutes < 90 ? t("today.in-min", { at, inMinutes }) : at;
}

function NothingNext() {
  return (
    <Card className="next mb-4">
      <Card.Body>
        <h1>{t("today.no-class-is-planned")}</h1>
        <p>{t("today.write-a-plan-and-give")}</p>
        <NewPlan variant="primary" />
      </Card.Body>
    </Card>
  );
}

/** NewPlan begins with nothing, or with a template. */
function NewPlan({ variant }: { variant: string }) {
  const begin = useBegin();
  const [choosing, setChoosing] = useState(false);
  return (
    <>
      <ButtonGroup>
        <Button variant={variant} onClick={() => begin.mutate(null)} disabled={begin.isPending}>
          {t("today.new-plan")}
        </Button>
        <Button variant={variant} onClick={() => setChoosing(true)}>
          {t("today.from-a-template")}
        </Button>
      </ButtonGroup>
      {begin.isError && <ErrorAlert error={begin.error} />}
      <Suspense>
        {choosing && (
          <TemplatesCard
            onChoose={(template) => begin.mutate({ template, group_id: 0 })}
            onClose={() => setChoosing(false)}
          />
        )}
      </Suspense>
    </>
  );
}

function Last({ record, now }: { record: Record; now: number }) {
  const practices = record.passages.filter((p) => p.practice !== "");
  const begin = useBegin();
  return (
    <Card>
      <Card.Body>
        <h2>{t("today.last-time-with-this-group")}</h2>
        <p className="text-secondary">
          {rich("today.of-planned", {
            title: record.class.title,
            started: day(record.class.started_ms, now),
            taught: clock(record.taught_ms),
            planned: clock(record.planned_ms),
            link: <Link to={`/taught/${record.class.id}`}>{t("frame.the-whole-record")}</Link>,
          })}
        </p>
        <div className="list-group list-group-flush">
          {practices.map((p, i) => (
            <div key={i} className="list-group-item d-flex justify-content-between">
              <span>
                {p.name} {p.counts}
              </span>
              <span>
                {p.own_pace
                  ? t("today.own-pace", { length: clock(p.length_ms) })
                  : t("today.of-rounds", { rounds: p.rounds, plannedRounds: p.planned_rounds }) +
                    (p.tempo_mean > 0 ? t("today.at-2", { tempoMean: p.tempo_mean }) : "")}
              </span>
            </div>
          ))}
        </div>
        <div className="d-flex flex-wrap gap-2 mt-3 align-items-center">
          <span className="text-secondary">{t("today.plan-it-again")}</span>
          <Button
            size="sm"
            variant="outline-secondary"
            disabled={begin.isPending}
            onClick={() => begin.mutate({ class_id: record.class.id, group_id: 0 })}
          >
            {t("today.as-planned")}
          </Button>
          <Button
            size="sm"
            variant="outline-secondary"
            disabled={begin.isPending}
            onClick={() => begin.mutate({ class_id: record.class.id, how: "taught", group_id: 0 })}
          >
            {t("today.as-taught")}
          </Button>
          <Button
            size="sm"
            variant="outline-primary"
            disabled={begin.isPending}
            onClick={() => begin.mutate({ class_id: record.class.id, how: "advised", group_id: 0 })}
          >
            {t("today.as-suggested")}
          </Button>
        </div>
        {begin.isError && <ErrorAlert error={begin.error} />}
      </Card.Body>
    </Card>
  );
}

function Others({ plans, more, now }: { plans: PlanCard[]; more: number; now: number }) {
  return (
    <section className="mb-4">
      <div className="d-flex justify-content-between align-items-baseline">
        <h2>{t("today.other-plans")}</h2>
        <span className="d-flex gap-2">
          <ImportPlan />
          <NewPlan variant="outline-primary" />
        </span>
      </div>
      {plans.length === 0 && <p className="text-secondary">{t("today.none")}</p>}
      {more > 0 && (
        <Suspense>
          <FindPlan more={more} now={now} />
        </Suspense>
      )}
      <PlanLinks plans={plans} now={now} />
      {plans.some((p) => p.starts_ms !== null) && (
        <a className="d-inline-block mt-2" href="/api/calendar">
          {t("today.export-calendar")}
        </a>
      )}
      <DeletedLately kinds={["plan"]} />
    </section>
  );
}

/** ImportPlan reads a plan file from disk. What is wrong in it is shown where it is edited. */
function ImportPlan() {
  const navigate = useNavigate();
  const field = useRef<HTMLInputElement>(null);
  const bring = useMutation({
    mutationFn: async (file: File) => post<Plan>("/plans/import", { text: await file.text(), group_id: 0 }),
    onSuccess: (plan) => void navigate(`/plan/${plan.id}`),
  });
  return (
    <>
      <input
        ref={field}
        type="file"
        accept=".json,.txt,application/json,text/plain"
        hidden
        aria-label={t("frame.plan-file")}
        onChange={(e) => {
          const file = e.target.files?.[0];
          if (file) bring.mutate(file);
          e.target.value = ""; // the same file again is a change too
        }}
      />
      <Button variant="outline-secondary" disabled={bring.isPending} onClick={() => field.current?.click()}>
        {t("frame.from-a-file")}
      </Button>
      {bring.isError && <ErrorAlert error={bring.error} />}
    </>
  );
}

function Recent({ classes, now }: { classes: ClassCard[]; now: number }) {
  return (
    <section>
      <h2>{t("today.taught-recently")}</h2>
      {classes.length === 0 && <p className="text-secondary">{t("today.nothing-yet-every-class")}</p>}
      <div className="list-group">
        {classes.map((c) => (
          <Link
            key={c.id}
            className="list-group-item list-group-item-action"
            to={c.running ? `/lead/${c.id}` : `/taught/${c.id}`}
          >
            <div className="d-flex justify-content-between">
              <strong>{c.title}</strong>
              <span>{c.running ? t("today.now") : day(c.started_ms, now)}</span>
            </div>
            <div className="text-secondary">
              {c.group ? `${c.group.name} · ` : ""}
              {clock(c.length_ms)}
            </div>
          </Link>
        ))}
      </div>
    </section>
  );
}
