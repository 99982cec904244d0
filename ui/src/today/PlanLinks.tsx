import { Link } from "react-router";
import { clock, day, minutes, timeOfDay } from "../player/format";
import type { PlanCard } from "../wire/contract";
import { t } from "../language/text";

/** PlanLinks is plans to open, one a line. */
export function PlanLinks({ plans, now }: { plans: PlanCard[]; now: number }) {
  return (
    <div className="list-group">
      {plans.map((plan) => (
        <Link key={plan.id} className="list-group-item list-group-item-action" to={`/plan/${plan.id}`}>
          <div className="d-flex justify-content-between">
            <strong>{plan.title || t("frame.untitled")}</strong>
            <span>
              {plan.starts_ms === null
                ? t("today.no-time-yet")
                : `${day(plan.starts_ms, now)}, ${timeOfDay(plan.starts_ms)}`}
            </span>
          </div>
          <div className="text-secondary">
            {plan.group ? `${plan.group.name} · ` : ""}
            {clock(plan.length_ms)} {plan.slot_ms > 0 && t("frame.of", { slot: minutes(plan.slot_ms) })}
          </div>
        </Link>
      ))}
    </div>
  );
}
