import { summaryQuery } from "./queries";
import "./taught.css";
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { Button, ButtonGroup, Form } from "react-bootstrap";
import { Link, useParams } from "react-router";
import { now } from "../player/clock";
import type { GroupSum, Summary } from "../wire/contract";
import { Paper } from "../frame/paper/Paper";
import { ErrorAlert } from "../frame/shell/ErrorAlert";
import { Loading } from "../frame/shell/Loading";
import { plural } from "../player/format";
import { text, wordOf } from "../language/text";
import "../frame/paper/paper.css";

/** SummaryView is what was taught in a year on one page, for a studio or a training school. */
export function SummaryView() {
  const year = Number(useParams().year) || new Date(now()).getFullYear();
  const summary = useQuery(summaryQuery(year));
  const [name, setName] = useState(() => localStorage.getItem("teacher") ?? "");
  const called = (next: string) => {
    localStorage.setItem("teacher", next);
    setName(next);
  };
  const tools = (
    <>
      <ButtonGroup aria-label="Year">
        <Link
          className="btn btn-outline-primary"
          to={`/taught/year/${year - 1}`}
          aria-label="The year before"
        >
          ‹
        </Link>
        <Button variant="outline-primary" disabled>
          {year}
        </Button>
        <Link className="btn btn-outline-primary" to={`/taught/year/${year + 1}`} aria-label="The year after">
          ›
        </Link>
      </ButtonGroup>
      <a className="btn btn-outline-secondary" href={`/api/summary/csv?year=${year}`} download>
        As CSV
      </a>
      <Form.Control
        className="w-auto"
        aria-label="Your name, as it is printed on the page"
        placeholder="your name"
        maxLength={100}
        value={name}
        onChange={(e) => called(e.target.value)}
      />
    </>
  );
  return (
    <Paper back="/taught" tools={tools}>
      {summary.isPending && <Loading what="Adding up the year" />}
      {summary.isError && <ErrorAlert error={summary.error} retry={() => void summary.refetch()} />}
      {summary.data && <Page summary={summary.data} name={name} />}
    </Paper>
  );
}

function Page({ summary, name }: { summary: Summary; name: string }) {
  const tried = summary.practices.some((p) => p.trial_ms > 0);
  const apart = (cell: string) => (tried ? [cell] : []); // a column where there is something to tell in it
  const rounds = summary.practices.reduce((all, p) => all + p.rounds, 0);
  return (
    <>
      <header>
        <h1>Taught in {summary.year}</h1>
        <p>
          {[
            name,
            plural(summary.classes, "class", "classes"),
            summary.taught_ms > 0 && `${hours(summary.taught_ms)} hours`,
          ]
            .filter(Boolean)
            .join(" · ")}
        </p>
      </header>
      {summary.classes === 0 ? (
        <p>Nothing was taught in this year.</p>
      ) : (
        <>
          <Sums
            title="Hours by practice"
            head={["Practice", "Classes", "Rounds", "Led", "Own pace", ...apart("Tried out")]}
            rows={[
              ...summary.practices.map((p) => [
                p.name,
                p.classes,
                p.rounds,
                hours(p.led_ms),
                hours(p.own_pace_ms),
                ...apart(hours(p.trial_ms)),
              ]),
              ["Talks", 0, 0, hours(summary.talks_ms), "", ...apart("")],
              ["Natural breath and rests", 0, 0, hours(summary.free_ms), "", ...apart("")],
            ]}
            total={["All classes, from start to end", summary.classes, rounds, hours(summary.taught_ms)]}
          />
          <Sums
            title="Hours by group"
            head={["Group", "Classes", "People, on average", "Hours"]}
            rows={summary.groups.map((g) => [g.name || "no group", g.classes, g.people, hours(g.taught_ms)])}
          />
          <Sums
            title="Hours by month"
            head={["Month", "Classes", "Hours"]}
            rows={summary.months.map((m) => [monthName(m.month), m.classes, hours(m.taught_ms)])}
          />
          {summary.groups.map((g) => (
            <GroupYear key={g.name} group={g} />
          ))}
          <p className="small">
            From the record of each class, as it was led: a practice from its lead-in to its closing. Own pace
            is time in which nobody counted; try-outs are set apart.
          </p>
          <div className="signed">
            <span>Date, teacher</span>
            <span>Date, school</span>
          </div>
        </>
      )}
    </>
  );
}

/** GroupYear is what a group has learned, at which level, what it never was taught, and which cautions were read. */
function GroupYear({ group }: { group: GroupSum }) {
  return (
    <>
      <Sums
        title={`${group.name || "No group"}${group.level ? `, ${wordOf("level", group.level)}` : ""}`}
        head={["Practice", "Classes", "Hours", "Highest led"]}
        rows={group.practices.map((p) => [p.name, p.classes, hours(p.taught_ms), p.level])}
      />
      {group.never.length > 0 && <p>Never taught: {group.never.join(", ")}.</p>}
      {group.cautions.length > 0 && (
        <p>
          Cautions read before class:{" "}
          {group.cautions.map((c) => `${text(c.say)} (${plural(c.classes, "class", "classes")})`).join(", ")}.
        </p>
      )}
    </>
  );
}

type SumsProps = { title: string; head: string[]; rows: (string | number)[][]; total?: (string | number)[] };

/** Sums is one table of the page; nothing stands for 0. The last cell of the total is as wide as what is left. */
function Sums({ title, head, rows, total }: SumsProps) {
  return (
    <>
      <h2>{title}</h2>
      <table>
        <thead>
          <tr>
            {head.map((name) => (
              <th key={name}>{name}</th>
            ))}
          </tr>
        </thead>
        <tbody>
          {rows.map((row, i) => (
            <tr key={i}>
              {row.map((cell, n) => (
                <td key={n}>{cell || ""}</td>
              ))}
            </tr>
          ))}
          {total && (
            <tr className="total">
              {total.map((cell, n) => (
                <td key={n} colSpan={n === total.length - 1 ? head.length - n : 1}>
                  {cell || ""}
                </td>
              ))}
            </tr>
          )}
        </tbody>
      </table>
    </>
  );
}

/** hours writes hours with two decimals, as they are added up on paper; nothing for none. */
function hours(ms: number): string {
  return ms === 0 ? "" : (ms / 3_600_000).toFixed(2);
}

function monthName(month: number): string {
  return new Date(2026, month - 1, 1).toLocaleDateString("en-GB", { month: "long" });
}
