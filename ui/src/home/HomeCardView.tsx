import { homeSheetQuery } from "./queries";
import "../frame/paper/paper.css";
import "./home.css";
import { useQuery } from "@tanstack/react-query";
import { useParams } from "react-router";
import { ErrorAlert } from "../frame/shell/ErrorAlert";
import { Loading } from "../frame/shell/Loading";
import { Paper } from "../frame/paper/Paper";

/** HomeCardView is what one takes home on paper: how it goes, how much, and when to stop. It promises nothing. */
export function HomeCardView() {
  const id = Number(useParams().id);
  const sheet = useQuery(homeSheetQuery(id));
  if (!sheet.data)
    return sheet.error ? <ErrorAlert error={sheet.error} /> : <Loading what="Preparing the card" />;
  const { home, how, beside, cautions, opening, closing } = sheet.data;
  const back = home.class_id > 0 ? `/taught/${home.class_id}/home` : `/plan/${home.plan_id}/home`;
  return (
    <Paper back={back}>
      <header>
        <h1>{home.name}</h1>
        <p>to do at home{sheet.data.from !== "" && `, from ${sheet.data.from}`}</p>
      </header>
      <p className="amount">{home.amount}</p>
      <p className="what">{home.says}</p>
      {home.sentence !== "" && <blockquote>{home.sentence}</blockquote>}
      <div className="lines">
        <section>
          <h2>How it goes</h2>
          <ol>
            {how.map((step) => (
              <li key={step}>{step}</li>
            ))}
          </ol>
          {opening.length > 0 && <p>Before: {opening.join(", ")}.</p>}
          {closing.length > 0 && <p>At the end: {closing.join(", ")}.</p>}
          {beside !== "" && <p>The gentler way, as good as the other: {beside}.</p>}
        </section>
        {home.days > 0 && <Days days={home.days} />}
      </div>
      <footer>
        <h2>When to stop</h2>
        <p>{sheet.data.stop}</p>
        {cautions.map((caution) => (
          <p key={caution}>{caution}</p>
        ))}
      </footer>
    </Paper>
  );
}

/** Days is a lamp for each day, to be ticked off. */
function Days({ days }: { days: number }) {
  return (
    <section>
      <h2>{days === 1 ? "One day" : `${days} days`}</h2>
      <p className="days" aria-hidden>
        {Array.from({ length: days }, (_, i) => (
          <span key={i}>{i + 1}</span>
        ))}
      </p>
    </section>
  );
}
