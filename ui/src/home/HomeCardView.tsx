import { homeSheetQuery } from "./queries";
import "../frame/paper/paper.css";
import "./home.css";
import { useQuery } from "@tanstack/react-query";
import { useParams } from "react-router";
import { ErrorAlert } from "../frame/shell/ErrorAlert";
import { Loading } from "../frame/shell/Loading";
import { Paper } from "../frame/paper/Paper";
import { daysOf, noonOf } from "../frame/dialogs/stretches";
import { shortDay } from "../player/format";
import type { Home, HomeStretch } from "../wire/contract";
import { t } from "../language/text";

/** HomeCardView is what one takes home on paper: how it goes, how much, and when to stop. It promises nothing. */
export function HomeCardView() {
  const id = Number(useParams().id);
  const sheet = useQuery(homeSheetQuery(id));
  if (!sheet.data)
    return sheet.error ? (
      <ErrorAlert error={sheet.error} />
    ) : (
      <Loading what={t("frame.preparing-the-card")} />
    );
  const { home, how, beside, cautions, opening, closing } = sheet.data;
  const back = home.class_id > 0 ? `/taught/${home.class_id}/home` : `/plan/${home.plan_id}/home`;
  return (
    <Paper back={back}>
      <header>
        <h1>{home.name}</h1>
        <p>
          {t("home.to-do-at-home")}
          {sheet.data.from !== "" && t("home.from", { from: sheet.data.from })}
        </p>
      </header>
      <p className="amount">{home.amount}</p>
      {home.stretches.length === 1 && <p className="what">{home.stretches[0]!.says}</p>}
      {home.sentence !== "" && <blockquote>{home.sentence}</blockquote>}
      <div className="lines">
        <section>
          <h2>{t("home.how-it-goes")}</h2>
          <ol>
            {how.map((step) => (
              <li key={step}>{step}</li>
            ))}
          </ol>
          {opening.length > 0 && <p>{t("home.before", { value: opening.join(", ") })}</p>}
          {closing.length > 0 && <p>{t("home.at-the-end", { value: closing.join(", ") })}</p>}
          {beside !== "" && <p>{t("home.the-gentler-way-as-good", { beside })}</p>}
        </section>
        {(home.stretches.length > 1 || home.days > 0) && <Steps home={home} />}
      </div>
      <footer>
        <h2>{t("home.when-to-stop")}</h2>
        <p>{sheet.data.stop}</p>
        {cautions.map((caution) => (
          <p key={caution}>{caution}</p>
        ))}
        <h2>{t("home.when-it-was-too-much")}</h2>
        <p>{sheet.data.too_much.join(" ")}</p>
      </footer>
    </Paper>
  );
}

const open = 7; // boxes of a step that has no end

/** Steps is what is done on which days, each with a box to tick off; of a step of many weeks a box is a week. */
function Steps({ home }: { home: Home }) {
  const several = home.stretches.length > 1;
  const total = home.stretches.at(-1)!.last;
  return (
    <section className="steps">
      <h2>{total > 0 ? t("home.days-in-all", { total }) : t("home.days-label")}</h2>
      {home.evening !== "" && <p>{t("home.two-ticks-a-day-one")}</p>}
      {home.stretches.map((step) => (
        <div key={step.first}>
          {several && (
            <p>
              <strong>{capital(dates(home, step))}:</strong> {step.says}
            </p>
          )}
          <Boxes step={step} weeks={total > manyDays && several} />
        </div>
      ))}
    </section>
  );
}

const manyDays = 42; // from which on a box is a week: else they would not be on one page

function Boxes({ step: { first, last }, weeks }: { step: HomeStretch; weeks: boolean }) {
  const days = last > 0 ? last - first + 1 : open;
  const boxes = weeks ? Math.ceil(days / 7) : days;
  return (
    <p className={weeks ? "days weeks" : "days"} aria-hidden>
      {Array.from({ length: boxes }, (_, i) => (
        <span key={i}>{weeks ? t("home.week", { i: i + 1 }) : first + i}</span>
      ))}
    </p>
  );
}

/** dates names the days of a step, with their dates where the first day is known. */
function dates({ begins }: Home, step: HomeStretch): string {
  const says = daysOf(step);
  if (begins === "") return says;
  const on = (number: number) => shortDay(noonOf(begins, number));
  return step.last > 0
    ? t("home.to", { says, first: on(step.first), last: on(step.last) })
    : `${says}, ${on(step.first)}`;
}

const capital = (words: string) => words.charAt(0).toUpperCase() + words.slice(1);
