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
import { tag } from "../language/catalogue";
import { t, text, wordOf } from "../language/text";
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
      <ButtonGroup aria-label={t("taught.year")}>
        <Link
          className="btn btn-outline-primary"
          to={`/taught/year/${year - 1}`}
          aria-label={t("taught.the-year-before")}
        >
          ‹
        </Link>
        <Button variant="outline-primary" disabled>
          {year}
        </Button>
        <Link
          className="btn btn-outline-primary"
          to={`/taught/year/${year + 1}`}
          aria-label={t("taught.the-year-after")}
        >
          ›
        </Link>
      </ButtonGroup>
      <a className="btn btn-outline-secondary" href={`/api/summary/csv?year=${year}`} download>
        {t("taught.as-csv")}
      </a>
      <Form.Control
        className="w-auto"
        aria-label={t("taught.your-name-as-it-is-printed")}
        placeholder={t("taught.your-name")}
        maxLength={100}
        value={name}
        onChange={(e) => called(e.target.value)}
      />
    </>
  );
  return (
    <Paper back="/taught" tools={tools}>
      {summary.isPending && <Loading what={t("taught.adding-up-the-year")} />}
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
        <h1>{t("taught.taught-in", { year: summary.year })}</h1>
        <p>
          {[
            name,
            t("taught.classes-of-year", { classes: summary.classes }),
            summary.taught_ms > 0 && t("taught.hours", { taught: hours(summary.taught_ms) }),
          ]
            .filter(Boolean)
            .join(" · ")}
        </p>
      </header>
      {summary.classes === 0 ? (
        <p>{t("taught.nothing-was-taught-in-this-year")}</p>
      ) : (
        <>
          <Sums
            title={t("taught.hours-by-practice")}
            head={[
              t("taught.practice"),
              t("taught.classes"),
              t("frame.rounds"),
              t("taught.led"),
              t("taught.own-pace-2"),
              ...apart(t("taught.tried-out")),
            ]}
            rows={[
              ...summary.practices.map((p) => [
                p.name,
                p.classes,
                p.rounds,
                hours(p.led_ms),
                hours(p.own_pace_ms),
                ...apart(hours(p.trial_ms)),
              ]),
              [t("taught.talks"), 0, 0, hours(summary.talks_ms), "", ...apart("")],
              [t("taught.natural-breath-and-rests"), 0, 0, hours(summary.free_ms), "", ...apart("")],
            ]}
            total={[
              t("taught.all-classes-from-start-to-end"),
              summary.classes,
              rounds,
              hours(summary.taught_ms),
            ]}
          />
          <Sums
            title={t("taught.hours-by-group")}
            head={[t("frame.group"), t("taught.classes"), t("taught.people-on-average"), t("taught.hours-2")]}
            rows={summary.groups.map((g) => [
              g.name || t("taught.no-group"),
              g.classes,
              g.people,
              hours(g.taught_ms),
            ])}
          />
          <Sums
            title={t("taught.hours-by-month")}
            head={[t("taught.month"), t("taught.classes"), t("taught.hours-2")]}
            rows={summary.months.map((m) => [monthName(m.month), m.classes, hours(m.taught_ms)])}
          />
          {summary.groups.map((g) => (
            <GroupYear key={g.name} group={g} />
          ))}
          <p className="small">{t("taught.from-the-record-of-each-class")}</p>
          <div className="signed">
            <span>{t("taught.date-teacher")}</span>
            <span>{t("taught.date-school")}</span>
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
        title={`${group.name || t("taught.no-group-2")}${group.level ? `, ${wordOf("level", group.level)}` : ""}`}
        head={[t("taught.practice"), t("taught.classes"), t("taught.hours-2"), t("taught.highest-led")]}
        rows={group.practices.map((p) => [p.name, p.classes, hours(p.taught_ms), p.level])}
      />
      {group.never.length > 0 && <p>{t("taught.never-taught", { value: group.never.join(", ") })}</p>}
      {group.cautions.length > 0 && (
        <p>
          {t("taught.cautions-read-before-class", {
            value: group.cautions
              .map((c) => t("taught.said-in-classes", { say: text(c.say), classes: c.classes }))
              .join(", "),
          })}
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
  const two = { minimumFractionDigits: 2, maximumFractionDigits: 2, useGrouping: false };
  return ms === 0 ? "" : (ms / 3_600_000).toLocaleString(tag(), two);
}

function monthName(month: number): string {
  return new Date(2026, month - 1, 1).toLocaleDateString(tag(), { month: "long" });
}
