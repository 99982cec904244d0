import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { Button, ButtonGroup, Form } from "react-bootstrap";
import { Link, useParams } from "react-router";
import { get } from "../shared/api";
import type { PracticeSum, Summary } from "../shared/contract";
import { Paper } from "../shared/Paper";
import { Trouble, Waiting } from "../shared/Told";
import "../shared/paper.css";

/** SummaryView is what was taught in a year on one page, for a studio or a training school. */
export function SummaryView() {
  const year = Number(useParams().year);
  const summary = useQuery({
    queryKey: ["summary", year],
    queryFn: () => get<Summary>(`/summary?year=${year}`),
  });
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
      <Form.Control
        className="w-auto"
        aria-label="Your name, as it is to stand on the page"
        placeholder="your name"
        maxLength={100}
        value={name}
        onChange={(e) => called(e.target.value)}
      />
    </>
  );
  return (
    <Paper back="/taught" tools={tools}>
      {summary.isPending && <Waiting what="Adding up the year" />}
      {summary.isError && <Trouble error={summary.error} retry={() => void summary.refetch()} />}
      {summary.data && <Page summary={summary.data} name={name} />}
    </Paper>
  );
}

function Page({ summary, name }: { summary: Summary; name: string }) {
  const tried = summary.practices.some((p) => p.trial_ms > 0);
  return (
    <>
      <header>
        <h1>Taught in {summary.year}</h1>
        <p>
          {[name, `${summary.classes} classes`, `${hours(summary.taught_ms)} hours`]
            .filter(Boolean)
            .join(" · ")}
        </p>
      </header>
      {summary.classes === 0 ? (
        <p>Nothing was taught in this year.</p>
      ) : (
        <>
          <h2>Hours by practice</h2>
          <table>
            <thead>
              <tr>
                <th>Practice</th>
                <th>Classes</th>
                <th>Rounds</th>
                <th>Led</th>
                <th>Own pace</th>
                {tried && <th>Tried out</th>}
              </tr>
            </thead>
            <tbody>
              {summary.practices.map((p) => (
                <tr key={p.practice}>
                  <td>{p.name}</td>
                  <td>{p.classes}</td>
                  <td>{p.rounds > 0 && p.rounds}</td>
                  <td>{hours(p.led_ms)}</td>
                  <td>{hours(p.own_pace_ms)}</td>
                  {tried && <td>{hours(p.trial_ms)}</td>}
                </tr>
              ))}
              <Rest name="Talks" ms={summary.talks_ms} tried={tried} />
              <Rest name="Natural breath and rests" ms={summary.free_ms} tried={tried} />
              <tr className="total">
                <td>All classes, from start to end</td>
                <td>{summary.classes}</td>
                <td>{sum(summary.practices, (p) => p.rounds)}</td>
                <td colSpan={tried ? 3 : 2}>{hours(summary.taught_ms)}</td>
              </tr>
            </tbody>
          </table>
          <h2>Hours by group</h2>
          <table>
            <thead>
              <tr>
                <th>Group</th>
                <th>Classes</th>
                <th>People, on average</th>
                <th>Hours</th>
              </tr>
            </thead>
            <tbody>
              {summary.groups.map((g) => (
                <tr key={g.name}>
                  <td>{g.name || "no group"}</td>
                  <td>{g.classes}</td>
                  <td>{g.people > 0 && g.people}</td>
                  <td>{hours(g.taught_ms)}</td>
                </tr>
              ))}
            </tbody>
          </table>
          <h2>Hours by month</h2>
          <table>
            <thead>
              <tr>
                <th>Month</th>
                <th>Classes</th>
                <th>Hours</th>
              </tr>
            </thead>
            <tbody>
              {summary.months.map((m) => (
                <tr key={m.month}>
                  <td>{monthName(m.month)}</td>
                  <td>{m.classes}</td>
                  <td>{hours(m.taught_ms)}</td>
                </tr>
              ))}
            </tbody>
          </table>
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

function Rest({ name, ms, tried }: { name: string; ms: number; tried: boolean }) {
  if (ms === 0) return null;
  return (
    <tr>
      <td>{name}</td>
      <td />
      <td />
      <td>{hours(ms)}</td>
      <td />
      {tried && <td />}
    </tr>
  );
}

/** hours writes hours with two decimals, as they are added up on paper; nothing for none. */
function hours(ms: number): string {
  return ms === 0 ? "" : (ms / 3_600_000).toFixed(2);
}

function sum(list: PracticeSum[], of: (p: PracticeSum) => number): number {
  return list.reduce((all, one) => all + of(one), 0);
}

function monthName(month: number): string {
  return new Date(2026, month - 1, 1).toLocaleDateString("en-GB", { month: "long" });
}
