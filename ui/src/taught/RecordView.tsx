import { recordQuery } from "./queries";
import "./taught.css";
import trash from "bootstrap-icons/icons/trash.svg?raw";
import { useQuery } from "@tanstack/react-query";
import { lazy, Suspense, useState } from "react";
import { Button, Dropdown, Table } from "react-bootstrap";
import { Link, useParams } from "react-router";
import { Icon } from "../frame/shell/Icon";
import type { LedLane, LedRound, Mark, Record, RecordPassage, RecordTotals } from "../wire/contract";
import { DeleteCard } from "../frame/dialogs/DeleteCard";
import { Shell } from "../frame/shell/Shell";
import { ErrorAlert } from "../frame/shell/ErrorAlert";
import { Loading } from "../frame/shell/Loading";
import { clock, day, number, plural, timeOfDay } from "../player/format";
import { Given } from "../frame/dialogs/Given";
import { Remarks } from "./Remarks";
import { CheckIn } from "./CheckIn";
import { Told } from "./Told";
import { TwoBars } from "./TwoBars";
import { text, wordOf } from "../language/text";
import { SeenAfter } from "./SeenAfter";
import { Unsaid } from "./Unsaid";

// With the large library that draws them.
const Curves = lazy(() => import("./Curves"));
const ByHand = lazy(() => import("./ByHand"));

export function RecordView() {
  const id = Number(useParams().id);
  const record = useQuery({
    ...recordQuery(id),
    refetchInterval: ({ state }) => (state.data?.told.until_ms ? whileAsked : false),
  });
  return (
    <Shell view="taught">
      {record.isPending && <Loading what="Loading the record" />}
      {record.isError && <ErrorAlert error={record.error} retry={() => void record.refetch()} />}
      {record.data && <Page record={record.data} />}
    </Shell>
  );
}

/** How often the sums are read again while they can grow, in ms. */
const whileAsked = 5000;

function Page({ record }: { record: Record }) {
  const { class: led } = record;
  const [deleting, setDeleting] = useState(false);
  return (
    <>
      <div className="d-flex justify-content-between align-items-start gap-2">
        <h1>{led.title || "Untitled"}</h1>
        <div className="d-flex gap-2">
          <Files id={led.id} />
          {!led.running && (
            <Button
              variant="outline-secondary"
              aria-label="Delete this class"
              onClick={() => setDeleting(true)}
            >
              <Icon of={trash} />
            </Button>
          )}
        </div>
        {deleting && (
          <DeleteCard
            kind="class"
            id={led.id}
            name={led.title}
            to="/taught"
            onClose={() => setDeleting(false)}
          />
        )}
      </div>
      <p className="text-secondary">
        {day(led.started_ms)} at {timeOfDay(led.started_ms)}
        {led.group && ` · ${led.group.name}`} · taught {clock(record.taught_ms)} of {clock(record.planned_ms)}{" "}
        planned
        {led.running && (
          <>
            {" "}
            · <Link to={`/lead/${led.id}`}>being led now</Link>
          </>
        )}
        {record.plan_id > 0 && (
          <>
            {" "}
            · <Link to={`/plan/${record.plan_id}`}>its plan</Link>
          </>
        )}
      </p>
      {record.remarks.some((r) => r.kind === "correction") && (
        <ul className="corrected" aria-label="Corrections">
          {record.remarks
            .filter((r) => r.kind === "correction")
            .map((r) => (
              <li key={r.id}>
                <strong>Corrected:</strong> {r.text}
              </li>
            ))}
        </ul>
      )}
      <TwoBars record={record} />
      <Told told={record.told} />
      <CheckIn sums={record.check_in} />
      <Remarks record={record} />
      <Unsaid record={record} />
      {!led.running && (
        <section>
          <h2>Home practice</h2>
          <Given given={record.homes} />
          <Link className="btn btn-outline-primary" to={`/taught/${led.id}/home`}>
            {record.homes.length === 0 ? "Choose what goes home" : "Give something else, or take it back"}
          </Link>
        </section>
      )}
      {record.curve.some((point) => point.kept && point.tempo > 0) && (
        <Suspense fallback={<Loading what="Drawing" />}>
          <Curves record={record} />
        </Suspense>
      )}
      {record.passages.some((p) => p.breaths.length > 0) && (
        <Suspense fallback={<Loading what="Drawing" />}>
          <ByHand record={record} />
        </Suspense>
      )}
      <Passages record={record} />
      <SeenAfter record={record} />
      <Marks record={record} />
      {record.acknowledged.length > 0 && (
        <details>
          <summary>
            {plural(record.acknowledged.length, "strong caution")} read before this class was led
          </summary>
          <ul>
            {record.acknowledged.map((id) => (
              <li key={id}>{wordOf("aspect", id)}</li> // records of earlier versions have the whole caution
            ))}
          </ul>
        </details>
      )}
    </>
  );
}

/** Files is the record as files: a table, everything, and the cue sheet of what was taught. */
function Files({ id }: { id: number }) {
  const file = (name: string, path: string) => (
    <Dropdown.Item href={`/api/classes/${id}/${path}`}>{name}</Dropdown.Item>
  );
  return (
    <Dropdown align="end">
      <Dropdown.Toggle variant="outline-secondary">Files</Dropdown.Toggle>
      <Dropdown.Menu>
        {file("One row a passage, CSV", "table")}
        {file("Everything, JSON", "file")}
        <Dropdown.Divider />
        {file("Cue sheet as taught, CSV", "sheet/csv")}
        {file("Cue sheet as taught, WebVTT", "sheet/vtt")}
      </Dropdown.Menu>
    </Dropdown>
  );
}

function Passages({ record }: { record: Record }) {
  return (
    <Table className="record" responsive>
      <caption className="visually-hidden">Planned and taught, passage by passage</caption>
      <thead>
        <tr>
          <th>
            <span className="visually-hidden">passage</span>
          </th>
          <th>Passage</th>
          <th className="text-end">Length</th>
          <th className="text-end">Rounds</th>
          <th>Counts</th>
          <th className="text-end">Tempo</th>
          <th className="text-end">Breaths a min</th>
          <th className="text-end">Longest hold</th>
          <th className="text-end">In holds</th>
          <th className="text-end">Left / right</th>
        </tr>
      </thead>
      <tbody>
        {record.passages.map((p, i) => (
          <tr key={i} className={p.length_ms === 0 ? "text-secondary" : ""}>
            <td>{i + 1}</td>
            <td>
              {p.name}
              {p.trial && <small> · try-out</small>}
              {p.own_pace && <small> · own pace</small>}
              {how(p) && <small className="how">{how(p)}</small>}
            </td>
            <td className="text-end">
              {p.length_ms === 0 ? "not reached" : clock(p.length_ms)}{" "}
              <small>of {clock(p.planned_length_ms)}</small>
            </td>
            <Rounds p={p} />
          </tr>
        ))}
      </tbody>
      <tfoot>
        <Totals record={record} />
      </tfoot>
    </Table>
  );
}

/** Totals is the last line: what the led passages come to. */
function Totals({ record: { totals, taught_ms, planned_ms, passages } }: { record: Record }) {
  const apart = passages.some((p) => (p.trial || p.own_pace) && p.length_ms > 0);
  return (
    <tr>
      <td />
      <th scope="row">Class{apart && <small> · without own pace and try-outs</small>}</th>
      <td className="text-end">
        {clock(taught_ms)} <small>of {clock(planned_ms)}</small>
      </td>
      <td className="text-end">
        <b>{totals.rounds}</b> <small>of {totals.planned_rounds}</small>
      </td>
      <td colSpan={3} />
      <Held p={totals} />
    </tr>
  );
}

function Rounds({ p }: { p: RecordPassage }) {
  if (p.practice === "" || p.own_pace) return <td colSpan={7} />;
  return (
    <>
      <td className="text-end" data-testid="rounds">
        <b>{p.rounds}</b> <small>of {p.planned_rounds}</small>
        {p.abandoned > 0 && <small> · {p.abandoned} abandoned</small>}
      </td>
      <td>
        {p.counts}
        {p.counts_end && ` → ${p.counts_end}`}
        {p.eased && <small> · eased</small>}
        {p.done.length > 0 && <small className="how">{asDone(p.done)}</small>}
      </td>
      <td className="text-end">{tempo(p)}</td>
      <td className="text-end">{p.per_minute > 0 ? number(p.per_minute) : ""}</td>
      <Held p={p} />
    </>
  );
}

const airways: { [airway: string]: string } = {
  "out-mouth": "out through the mouth",
  "in-mouth": "in through the mouth",
  mouth: "through the mouth",
};
const voices: { [voice: string]: string } = {
  updown: "numbers up and down",
  syllables: "syllables",
  words: "words only",
  holds: "numbers in holds only",
  silent: "silent",
};

/** how is what sets a passage apart: how it was breathed, how it was said, and what stood beside it. */
function how(p: RecordPassage): string {
  const widths = [
    p.inhale_width && `inhale ${p.inhale_width}`,
    p.exhale_width && `exhale ${p.exhale_width}`,
  ].filter(Boolean);
  return [
    airways[p.airway],
    p.zone,
    p.attention,
    widths.join(", "),
    voices[p.voice],
    ...p.lanes.map(laneInWords),
  ]
    .filter(Boolean)
    .join(" · ");
}

/** laneInWords is a stretch in which a gentler lane stood beside, and what was breathed in it. */
function laneInWords(lane: LedLane): string {
  const sides =
    lane.left_inhales + lane.right_inhales > 0 ? `, ${lane.left_inhales} / ${lane.right_inhales}` : "";
  const breaths = `${plural(lane.breaths, "breath")} at ${number(lane.per_minute)} a min${sides}, no hold`;
  return `gentler lane from ${clock(lane.at_ms)} for ${clock(lane.length_ms)}: ${text({ id: lane.beside === "breathe" ? "lane.breathe" : "lane.shorter", args: { counts: lane.beside } })}, ${breaths}`;
}

/** asDone is the rounds as they were done: their strokes, or the seconds of their open phases. */
function asDone(done: LedRound[]): string {
  if (done.every((round) => round.strokes > 0)) {
    return `strokes as done: ${done.map((round) => round.strokes).join(", ")}`;
  }
  const phases = (r: LedRound) =>
    [
      ["in", r.inhale_ms],
      ["hold", r.hold_ms],
      ["out", r.exhale_ms],
      ["empty", r.empty_ms],
    ] as const;
  return done
    .map((r) =>
      phases(r)
        .filter(([, ms]) => ms > 0)
        .map(([name, ms]) => `${name} ${number(ms / 1000)} s`)
        .join(", "),
    )
    .join("; ");
}

/** where is the place of an adjustment: the passage, and in it the round and the breath. */
function where({ passages }: Record, mark: Mark): string {
  if (mark.passage === 0) return "after the end";
  const place = [passages[mark.passage - 1]!.name];
  if (mark.round > 0)
    place.push(mark.stage === "rest" ? `rest after round ${mark.round}` : `round ${mark.round}`);
  else if (stages[mark.stage]) place.push(stages[mark.stage]!);
  if (mark.breath > 1) place.push(`breath ${mark.breath}`);
  return place.join(", ");
}

const stages: { [stage: string]: string } = {
  opening: "the opening",
  closing: "the closing",
  own: "at own pace",
  recall: "called back",
  setup: "the count-in",
  pause: "natural breath",
};

function Held({ p }: { p: RecordPassage | RecordTotals }) {
  return (
    <>
      <td className="text-end">{p.longest_hold_ms > 0 ? `${number(p.longest_hold_ms / 1000)} s` : ""}</td>
      <td className="text-end">{held(p)}</td>
      <td className="text-end">
        {p.left_inhales + p.right_inhales > 0 ? `${p.left_inhales} / ${p.right_inhales}` : ""}
      </td>
    </>
  );
}

function tempo(p: RecordPassage): string {
  if (p.hand_tempo > 0) return `by hand, at ${p.hand_tempo}`;
  if (p.tempo_start === 0) return "";
  if (p.tempo_start === p.tempo_end && p.tempo_mean === p.tempo_start) return String(p.tempo_start);
  return `${p.tempo_start} → ${p.tempo_end}, mean ${number(p.tempo_mean)}`;
}

function held(p: RecordPassage | RecordTotals): string {
  const full = p.held_full_ms > 0 ? `${clock(p.held_full_ms)} full` : "";
  const empty = p.held_empty_ms > 0 ? `${clock(p.held_empty_ms)} empty` : "";
  return [full, empty].filter(Boolean).join(", ");
}

/** Marks is what was changed and noted, and, put away, what else was pressed. */
function Marks({ record }: { record: Record }) {
  const told = record.marks.filter((mark) => mark.kind === "change" || mark.kind === "remark");
  const goneOn = record.marks.filter((mark) => mark.kind === "going-on").length; // by hand one for each phase
  const others = record.marks.filter((mark) => !told.includes(mark) && mark.kind !== "going-on");
  const changes = told.filter((mark) => mark.kind === "change").length;
  return (
    <>
      {changes === 0 ? (
        <p className="text-secondary">Nothing was adjusted: led as planned.</p>
      ) : (
        <h2>{plural(changes, "adjustment")}</h2>
      )}
      <MarkList record={record} marks={told} />
      {goneOn > 0 && <p className="text-secondary mb-1">Go on was pressed {plural(goneOn, "time")}.</p>}
      {others.length > 0 && (
        <details className="mb-3">
          <summary>Also pressed: {others.length}, refused or taken back</summary>
          <MarkList record={record} marks={others} />
        </details>
      )}
    </>
  );
}

function MarkList({ record, marks }: { record: Record; marks: Mark[] }) {
  if (marks.length === 0) return null;
  return (
    <ol className="marks">
      {marks.map((mark) => (
        <li
          key={mark.answer.number}
          id={`mark-${mark.answer.number}`}
          className={mark.answer.refused ? "refused" : ""}
        >
          <span className="at">{clock(mark.answer.at_ms)}</span>
          <span>
            {text(mark.answer.did)}
            {mark.kind === "taken-back" && mark.answer.do !== "undo" && ", taken back"}
            {mark.answer.because && `, because of ${wordOf("signal", mark.answer.because)}`}
            {mark.answer.origin && <small> on {mark.answer.origin}</small>}
          </span>
          <small>{where(record, mark)}</small>
        </li>
      ))}
    </ol>
  );
}
