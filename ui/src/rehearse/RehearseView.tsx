import { rehearsalsQuery } from "../wire/queries";
import "./rehearse.css";
import { useMutation, useQuery } from "@tanstack/react-query";
import { lazy, Suspense, useState } from "react";
import { Button, Card, Form } from "react-bootstrap";
import { Link, useNavigate, useSearchParams } from "react-router";
import { DeletedLately } from "../frame/dialogs/BringBack";
import { ErrorAlert } from "../frame/shell/ErrorAlert";
import { Loading } from "../frame/shell/Loading";
import { Shell } from "../frame/shell/Shell";
import { now } from "../player/clock";
import { clock, day, minutes } from "../player/format";
import { post } from "../wire/api";
import type { Rehearsal, RehearsalPlan, Rehearsals, Rehearse, Rehearsing, Scenario } from "../wire/contract";
import { rich, t, text } from "../language/text";

const Progress = lazy(() => import("./Progress"));

/** RehearseView is a room to practise on: tasks to learn by, any plan with any room, and what came of it. */
export function RehearseView() {
  const all = useQuery(rehearsalsQuery);
  const navigate = useNavigate();
  const begin = useMutation({
    mutationFn: (want: Rehearse) => post<Rehearsing>("/rehearsals", want),
    onSuccess: (room) => void navigate(`/rehearse/${room.id}/lead`),
  });
  return (
    <Shell view="rehearse">
      <h1>{t("rehearse.rehearse")}</h1>
      <p className="text-secondary">
        {t("rehearse.a-room-to-practise-on-look", { limits: text(all.data?.limits) })}
      </p>
      {all.isPending && <Loading what={t("rehearse.looking-for-rehearsals")} />}
      {all.isError && <ErrorAlert error={all.error} retry={() => void all.refetch()} />}
      {begin.isError && <ErrorAlert error={begin.error} />}
      {all.data && (
        <div className="rehearse">
          <section aria-labelledby="tasks">
            <h2 id="tasks">{t("rehearse.tasks")}</h2>
            <ol className="tasks">
              {all.data.scenarios.map((scenario) => (
                <Task
                  key={scenario.name}
                  scenario={scenario}
                  busy={begin.isPending}
                  onBegin={(level) => begin.mutate({ scenario: scenario.name, level })}
                />
              ))}
            </ol>
          </section>
          <section>
            <Free all={all.data} busy={begin.isPending} onBegin={(want) => begin.mutate(want)} />
            <Done list={all.data.done} />
          </section>
        </div>
      )}
      <DeletedLately kinds={["rehearsal"]} />
    </Shell>
  );
}

type TaskProps = { scenario: Scenario; busy: boolean; onBegin: (level: number) => void };

function Task({ scenario, busy, onBegin }: TaskProps) {
  return (
    <li>
      <h3>{scenario.title}</h3>
      <p>{scenario.learn}</p>
      <div className="levels">
        {scenario.levels.map((level, i) => (
          <Button
            key={i}
            variant={level.reached ? "primary" : "outline-primary"}
            disabled={busy}
            onClick={() => onBegin(i + 1)}
          >
            <b>
              {t("rehearse.level", {
                i: i + 1,
                reached: level.reached
                  ? t("rehearse.reached")
                  : level.tries > 0
                    ? t("rehearse.tried", { tries: level.tries })
                    : "",
              })}
            </b>
            <small>
              {t("rehearse.people", {
                says: level.says,
                people: level.people,
                length: minutes(level.length_ms),
              })}
            </small>
          </Button>
        ))}
      </div>
    </li>
  );
}

/** nextOf is the plan that comes next, or that was last. */
function nextOf(plans: RehearsalPlan[]): number {
  const timed = plans.filter((p) => p.starts_ms > 0);
  const next = timed.find((p) => p.starts_ms > now()) ?? timed.at(-1) ?? plans[0];
  return next?.id ?? 0;
}

type FreeProps = { all: Rehearsals; busy: boolean; onBegin: (want: Rehearse) => void };

/** Free is any plan with any room, from any passage on. */
function Free({ all, busy, onBegin }: FreeProps) {
  const [search] = useSearchParams();
  const asked = Number(search.get("plan"));
  const [planId, setPlan] = useState(() => all.plans.find((p) => p.id === asked)?.id ?? nextOf(all.plans));
  const [room, setRoom] = useState("newcomers");
  const [passage, setPassage] = useState(1);
  const plan = all.plans.find((p) => p.id === planId);
  return (
    <Card className="mb-4">
      <Card.Body>
        <h2>{t("rehearse.a-plan-of-yours")}</h2>
        {all.plans.length === 0 && (
          <p className="mb-0">
            {rich("rehearse.there-is-no-plan-yet", {
              link: <Link to="/">{t("rehearse.make-one-at-today")}</Link>,
            })}
          </p>
        )}
        {plan && (
          <Form
            onSubmit={(e) => {
              e.preventDefault();
              onBegin({ plan_id: planId, room, passage });
            }}
          >
            <Form.Group controlId="rehearse-plan" className="mb-2">
              <Form.Label>{t("rehearse.plan")}</Form.Label>
              <Form.Select
                value={planId}
                onChange={(e) => {
                  setPlan(Number(e.target.value));
                  setPassage(1);
                }}
              >
                {all.plans.map((p) => (
                  <option key={p.id} value={p.id}>
                    {p.title || t("frame.untitled")}
                    {p.starts_ms > 0 && `, ${day(p.starts_ms)}`}
                  </option>
                ))}
              </Form.Select>
            </Form.Group>
            <Form.Group controlId="rehearse-passage" className="mb-2">
              <Form.Label>{t("rehearse.from")}</Form.Label>
              <Form.Select value={passage} onChange={(e) => setPassage(Number(e.target.value))}>
                {plan.passages.map((name, i) => (
                  <option key={i} value={i + 1}>
                    {i + 1}. {name}
                  </option>
                ))}
              </Form.Select>
            </Form.Group>
            <Form.Group controlId="rehearse-room" className="mb-3">
              <Form.Label>{t("frame.room")}</Form.Label>
              <Form.Select value={room} onChange={(e) => setRoom(e.target.value)}>
                {all.rooms.map((r) => (
                  <option key={r.name} value={r.name}>
                    {r.title}, {r.people}
                  </option>
                ))}
              </Form.Select>
              <Form.Text>{all.rooms.find((r) => r.name === room)?.about}</Form.Text>
            </Form.Group>
            <Button type="submit" disabled={busy}>
              {t("frame.rehearse-it")}
            </Button>
          </Form>
        )}
      </Card.Body>
    </Card>
  );
}

const shownAtFirst = 12;

/** Done is what was rehearsed, the latest first, and how it went over time. */
function Done({ list }: { list: Rehearsal[] }) {
  const [whole, setWhole] = useState(false);
  const over = list.filter((one) => one.digest !== null);
  return (
    <>
      <h2>{t("rehearse.rehearsed")}</h2>
      {list.length === 0 && <p>{t("rehearse.nothing-yet-begin-with-the-first")}</p>}
      {over.length > 1 && (
        <Suspense fallback={<Loading what={t("frame.drawing")} />}>
          <Progress list={over} />
        </Suspense>
      )}
      <ul className="rehearsed">
        {list.slice(0, whole ? list.length : shownAtFirst).map((one) => (
          <li key={one.id}>
            <Link to={one.over ? `/rehearse/${one.id}` : `/rehearse/${one.id}/lead`}>
              {one.title}
              {one.level > 0 && t("rehearse.level-2", { level: one.level })}
            </Link>
            <small>
              {day(one.started_ms)}, {one.room.toLowerCase()}
              {one.digest ? ` · ${inShort(one)}` : t("rehearse.left-at-go", { at: clock(one.at_ms) })}
            </small>
          </li>
        ))}
      </ul>
      {list.length > shownAtFirst && !whole && (
        <Button variant="link" className="p-0" onClick={() => setWhole(true)}>
          {t("rehearse.show-all", { list: list.length })}
        </Button>
      )}
    </>
  );
}

/** inShort is what came of a rehearsal, in a few words. */
function inShort({ digest }: Rehearsal): string {
  if (!digest) return "";
  const { reached, aims } = digest;
  return t("rehearse.of-missed", { reached, aims, missed: digest.missed, toSee: digest.to_see });
}
