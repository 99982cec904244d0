import { lazy, Suspense, useState } from "react";
import { Button } from "react-bootstrap";
import { Link } from "react-router";
import type { PlanCard } from "../wire/contract";
import { clock, timeOfDay, weekday } from "../player/format";
import { atMidnight } from "../player/days";
import { t } from "../language/text";

const Move = lazy(async () => ({ default: (await import("./Move")).Move }));

const days = 7;

/** Week is the classes of the coming days at a glance; each can be moved to another time. */
export function Week({ plans, now }: { plans: PlanCard[]; now: number }) {
  const [moving, setMoving] = useState(0); // the plan that is moved
  const first = atMidnight(now);
  const columns = Array.from({ length: days }, (_, i) => atMidnight(first, i));
  const within = plans.filter(
    (p) => p.starts_ms !== null && p.starts_ms >= first && p.starts_ms < atMidnight(first, days),
  );
  if (within.length === 0) return null;
  return (
    <section className="week mb-4" aria-label={t("today.the-coming-week")}>
      <h2>{t("today.the-coming-week")}</h2>
      <ol>
        {columns.map((day, i) => (
          <li key={day} className={i === 0 ? "here" : ""}>
            <h3>{weekday(day)}</h3>
            {within
              .filter((p) => p.starts_ms! >= day && p.starts_ms! < atMidnight(day, 1))
              .map((plan) => (
                <div className="class" key={plan.id}>
                  <Link to={`/plan/${plan.id}`}>
                    <b>{timeOfDay(plan.starts_ms!)}</b> {plan.title || t("frame.untitled")}
                  </Link>
                  <small>
                    {plan.group && `${plan.group.name} · `}
                    {clock(plan.length_ms)}
                  </small>
                  <Button
                    size="sm"
                    variant="link"
                    aria-expanded={moving === plan.id}
                    aria-label={t("today.move-class", { title: plan.title })}
                    onClick={() => setMoving(moving === plan.id ? 0 : plan.id)}
                  >
                    {t("today.move")}
                  </Button>
                  <Suspense>
                    {moving === plan.id && <Move plan={plan} onDone={() => setMoving(0)} />}
                  </Suspense>
                </div>
              ))}
          </li>
        ))}
      </ol>
    </section>
  );
}
