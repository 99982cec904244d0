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
import { clock, day, number, timeOfDay } from "../player/format";
import { Given } from "../frame/dialogs/Given";
import { Remarks } from "./Remarks";
import { CheckIn } from "./CheckIn";
import { Told } from "./Told";
import { TwoBars } from "./TwoBars";
import { t, text, wordOf } from "../language/text";
import { SeenAfter } from "./SeenAfter";
import { Unsaid } from "./Unsaid";

// With the large library that draws them.
const Curves = lazy(() => import("./Curves"));
const ByHand = lazy(() => import("./ByHand"));
const HeardRounds = lazy(() => import("./HeardRounds"));

export function RecordView() {
  const id = Number(useParams().id);
  const record = useQuery({
    ...recordQuery(id),
    refetchInterval: ({ state }) => (state.data?.told.until_ms ? whileAsked : false),
  });
  return (
    <Shell view="taught">
      {record.isPending && <Loading what={t("taught.loading-the-record")} />}
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
        <h1>{led.title || t("frame.untitled")}</h1>
        <div className="d-flex gap-2">
          <Files id={led.id} />
          {!led.running && (
            <Button
              variant="outline-secondary"
              aria-label={t("taught.delete-this-class")}
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
        {t("taught.at", { started: day(led.started_ms), started2: timeOfDay(led.started_ms) })}
        {led.group && ` · ${led.group.name}`}{" "}
        {t("taught.taught-of-planned", {
          taught: clock(record.taught_ms),
          planned: clock(record.planned_ms),
        })}
        {led.running && (
          <>
            {" "}
            · <Link to={`/lead/${led.id}`}>{t("taught.being-led-now")}</Link>
          </>
        )}
        {record.plan_id > 0 && (
          <>
            {" "}
            · <Link to={`/plan/${record.plan_id}`}>{t("taught.its-plan")}</Link>
          </>
        )}
      </p>
      {record.remarks.some((r) => r.kind === "correction") && (
        <ul className="corrected" aria-label={t("taught.corrections")}>
          {record.remarks
            .filter((r) => r.kind === "correction")
            .map((r) => (
              <li key={r.id}>
                <strong>{t("taught.corrected")}</strong> {r.text}
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
          <h2>{t("frame.home-practice")}</h2>
          <Given given={record.homes} />
          <Link className="btn btn-outline-primary" to={`/taught/${led.id}/home`}>
            {record.homes.length === 0
              ? t("taught.choose-what-goes-home")
              : t("taught.give-something-else-or-take")}
          </Link>
        </section>
      )}
      {record.curve.some((point) => point.kept && point.tempo > 0) && (
        <Suspense fallback={<Loading what={t("frame.drawing")} />}>
          <Curves record={record} />
        </Suspense>
      )}
      {record.passages.some((p) => p.breaths.length > 0) && (
        <Suspense fallback={<Loading what={t("frame.drawing")} />}>
          <ByHand record={record} />
        </Suspense>
      )}
      {record.heard.length > 0 && (
        <Suspense fallback={<Loading what={t("frame.drawing")} />}>
          <HeardRounds record={record} />
        </Suspense>
      )}
      <Passages record={record} />
      <SeenAfter record={record} />
      <Marks record={record} />
      {record.acknowledged.length > 0 && (
        <details>
          <summary>
            {t("taught.read-before-this-class-was-led", { acknowledged: record.acknowledged.length })}
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
      <Dropdown.Toggle variant="outline-secondary">{t("taught.files")}</Dropdown.Toggle>
      <Dropdown.Menu>
        {file(t("taught.one-row-a-passage-csv"), "table")}
        {file(t("taught.everything-json"), "file")}
        <Dropdown.Divider />
        {file(t("taught.cue-sheet-as-taught-csv"), "sheet/csv")}
        {file(t("taught.cue-sheet-as-taught-webvtt"), "sheet/vtt")}
      </Dropdown.Menu>
    </Dropdown>
  );
}

function Passages({ record }: { record: Record }) {
  return (
    <Table className="record" responsive>
      <caption className="visually-hidden">{t("taught.planned-and-taught-passage-by-passage")}</caption>
      <thead>
        <tr>
          <th>
            <span className="visually-hidden">{t("taught.passage")}</span>
          </th>
          <th>{t("taught.passage-2")}</th>
          <th className="text-end">{t("taught.length")}</th>
          <th className="text-end">{t("frame.rounds")}</th>
          <th>{t("frame.counts")}</th>
          <th className="text-end">{t("frame.tempo")}</th>
          <th className="text-end">{t("taught.breaths-a-min")}</th>
          <th className="text-end">{t("taught.longest-hold")}</th>
          <th className="text-end">{t("taught.in-holds")}</th>
          <th className="text-end">{t("taught.left-right")}</th>
        </tr>
      </thead>
      <tbody>
        {record.passages.map((p, i) => (
          <tr key={i} className={p.length_ms === 0 ? "text-secondary" : ""}>
            <td>{i + 1}</td>
            <td>
              {p.name}
              {p.trial && <small> {t("taught.try-out")}</small>}
              {p.own_pace && <small> {t("taught.own-pace")}</small>}
              {how(p) && <small className="how">{how(p)}</small>}
            </td>
            <td className="text-end">
              {p.length_ms === 0 ? t("frame.not-reached") : clock(p.length_ms)}{" "}
              <small>{t("taught.of", { plannedLength: clock(p.planned_length_ms) })}</small>
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
      <th scope="row">
        {t("frame.class")}
        {apart && <small> {t("taught.without-own-pace-and-try-outs")}</small>}
      </th>
      <td className="text-end">
        {clock(taught_ms)} <small>{t("taught.of-2", { planned: clock(planned_ms) })}</small>
      </td>
      <td className="text-end">
        <b>{totals.rounds}</b> <small>{t("taught.of-3", { plannedRounds: totals.planned_rounds })}</small>
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
        <b>{p.rounds}</b> <small>{t("taught.of-3", { plannedRounds: p.planned_rounds })}</small>
        {p.abandoned > 0 && <small> {t("taught.abandoned", { abandoned: p.abandoned })}</small>}
      </td>
      <td>
        {p.counts}
        {p.counts_end && ` → ${p.counts_end}`}
        {p.eased && <small> {t("taught.eased")}</small>}
        {p.done.length > 0 && <small className="how">{asDone(p.done)}</small>}
      </td>
      <td className="text-end">{tempo(p)}</td>
      <td className="text-end">{p.per_minute > 0 ? number(p.per_minute) : ""}</td>
      <Held p={p} />
    </>
  );
}

const airways = (): { [airway: string]: string } => ({
  "out-mouth": t("frame.out-through-the-mouth"),
  "in-mouth": t("frame.in-through-the-mouth"),
  mouth: t("frame.through-the-mouth"),
});
const voices = (): { [voice: string]: string } => ({
  updown: t("taught.numbers-up-and-down"),
  syllables: t("taught.syllables"),
  words: t("taught.words-only"),
  holds: t("taught.numbers-in-holds-only"),
  silent: t("taught.silent"),
});

/** how is what sets a passage apart: how it was breathed, how it was said, and what stood beside it. */
function how(p: RecordPassage): string {
  const widths = [
    p.inhale_width && t("taught.inhale", { inhaleWidth: p.inhale_width }),
    p.exhale_width && t("taught.exhale", { exhaleWidth: p.exhale_width }),
  ].filter(Boolean);
  return [
    airways()[p.airway],
    p.zone,
    p.attention,
    widths.join(", "),
    voices()[p.voice],
    ...p.lanes.map(laneInWords),
  ]
    .filter(Boolean)
    .join(" · ");
}

/** laneInWords is a stretch in which a gentler lane stood beside, and what was breathed in it. */
function laneInWords(lane: LedLane): string {
  const sides =
    lane.left_inhales + lane.right_inhales > 0 ? `, ${lane.left_inhales} / ${lane.right_inhales}` : "";
  const breaths = t("taught.at-a-min-no-hold", {
    breaths: lane.breaths,
    perMinute: number(lane.per_minute),
    sides,
  });
  return t("taught.gentler-lane", {
    at: clock(lane.at_ms),
    length: clock(lane.length_ms),
    value: text({
      id: lane.beside === "breathe" ? "lane.breathe" : "lane.shorter",
      args: { counts: lane.beside },
    }),
    breaths,
  });
}

/** asDone is the rounds as they were done: their strokes, or the seconds of their open phases. */
function asDone(done: LedRound[]): string {
  if (done.every((round) => round.strokes > 0)) {
    return t("taught.strokes-as-done", { value: done.map((round) => round.strokes).join(", ") });
  }
  const phases = (r: LedRound) =>
    [
      ["inhale", r.inhale_ms],
      ["hold", r.hold_ms],
      ["exhale", r.exhale_ms],
      ["empty", r.empty_ms],
    ] as const;
  return done
    .map((r) =>
      phases(r)
        .filter(([, ms]) => ms > 0)
        .map(([name, ms]) => `${wordOf("phase", name)} ${number(ms / 1000)} s`)
        .join(", "),
    )
    .join("; ");
}

/** where is the place of an adjustment: the passage, and in it the round and the breath. */
function where({ passages }: Record, mark: Mark): string {
  if (mark.passage === 0) return t("taught.after-the-end");
  const place = [passages[mark.passage - 1]!.name];
  if (mark.round > 0)
    place.push(
      mark.stage === "rest"
        ? t("taught.rest-after-round", { round: mark.round })
        : t("taught.round", { round: mark.round }),
    );
  else if (stages()[mark.stage]) place.push(stages()[mark.stage]!);
  if (mark.breath > 1) place.push(t("frame.breath", { breath: mark.breath }));
  return place.join(", ");
}

const stages = (): { [stage: string]: string } => ({
  opening: t("taught.the-opening"),
  closing: t("taught.the-closing"),
  own: t("taught.at-own-pace"),
  recall: t("taught.called-back"),
  setup: t("taught.the-count"),
  pause: t("taught.natural-breath"),
});

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
  if (p.hand_tempo > 0) return t("taught.by-hand", { handTempo: p.hand_tempo });
  if (p.tempo_start === 0) return "";
  if (p.tempo_start === p.tempo_end && p.tempo_mean === p.tempo_start) return String(p.tempo_start);
  return t("taught.mean", {
    tempoStart: p.tempo_start,
    tempoEnd: p.tempo_end,
    tempoMean: number(p.tempo_mean),
  });
}

function held(p: RecordPassage | RecordTotals): string {
  const full = p.held_full_ms > 0 ? t("taught.full", { heldFull: clock(p.held_full_ms) }) : "";
  const empty = p.held_empty_ms > 0 ? t("taught.empty", { heldEmpty: clock(p.held_empty_ms) }) : "";
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
        <p className="text-secondary">{t("taught.nothing-was-adjusted-led-as-planned")}</p>
      ) : (
        <h2>{t("taught.adjustments", { changes })}</h2>
      )}
      <MarkList record={record} marks={told} />
      {goneOn > 0 && <p className="text-secondary mb-1">{t("taught.go-on-was-pressed", { goneOn })}</p>}
      {others.length > 0 && (
        <details className="mb-3">
          <summary>{t("taught.also-pressed-refused-or-taken-back", { others: others.length })}</summary>
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
            {mark.kind === "taken-back" && mark.answer.do !== "undo" && t("taught.taken-back")}
            {mark.answer.because && t("taught.because-of", { value: wordOf("signal", mark.answer.because) })}
            {mark.answer.origin && <small> {t("taught.on", { origin: mark.answer.origin })}</small>}
          </span>
          <small>{where(record, mark)}</small>
        </li>
      ))}
    </ol>
  );
}
