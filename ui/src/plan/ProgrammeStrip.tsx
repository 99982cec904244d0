import { programmeOfPlanQuery } from "./queries";
import { useQuery } from "@tanstack/react-query";
import { Link } from "react-router";
import { day, shortDay } from "../player/format";
import { classStates } from "../frame/editing/classStates";
import { rich, t, text } from "../language/text";

const around = 3; // classes before and after that are linked

/** ProgrammeStrip tells which class of a programme a plan is, and why it stands there. */
export function ProgrammeStrip({ id }: { id: number }) {
  const of = useQuery(programmeOfPlanQuery(id));
  const sheet = of.data?.sheet;
  if (!sheet) return null;
  const { card, classes } = sheet;
  const at = classes.findIndex((c) => c.plan_id === id);
  const mine = classes[at];
  const near = classes.filter((c, i) => c.plan_id > 0 && Math.abs(i - at) <= around);
  return (
    <nav className="course" aria-label={t("plan.programme")}>
      <p className="mb-0">
        {rich("plan.programme-2", { link: <Link to={`/programmes/${card.id}`}>{card.name}</Link> })}
        {mine &&
          t("plan.this-class-is-step-of-planned", { step: mine.step, steps: card.steps, says: mine.says })}
        {mine?.state === "coming" &&
          classes.find((c) => c.state === "coming") === mine &&
          ` · ${text(card.why)}`}
        {mine?.changed && t("plan.changed-by-you-it-stays")}
        {mine && mine.why && ` · ${text(mine.why)}`}
      </p>
      <ol>
        <li>{t("plan.its-classes")}</li>
        {near.map((c) => (
          <li key={c.plan_id}>
            <Link
              to={`/plan/${c.plan_id}`}
              aria-current={c.plan_id === id ? "page" : undefined}
              title={t("plan.class", {
                number: c.number,
                starts: day(c.starts_ms),
                state: classStates()[c.state],
              })}
            >
              {shortDay(c.starts_ms)}
            </Link>
          </li>
        ))}
      </ol>
    </nav>
  );
}
