import { useId, useRef, useState } from "react";
import { Button, Form } from "react-bootstrap";
import { type Edit, set as setField } from "../frame/editing/Steps";
import type { Change, PassageSummary, Role, ScorePhase } from "../wire/contract";
import { RoundSheet } from "./RoundSheet";
import { t } from "../language/text";

type Props = {
  edit: Edit;
  summary: PassageSummary;
  onAsk: (change: Change) => Promise<string | null>;
};

const names = (): Partial<Record<Role["phase"], string>> => ({
  inhale: t("plan.inhale"),
  hold: t("plan.hold"),
  exhale: t("plan.exhale"),
  empty: t("plan.empty-hold"),
});

/**
 * RoundEditor is a round as a drawing: a phase is clicked, or reached with the Tab key, to change its counts, and its own words
 * stand with it.
 */
export function RoundEditor({ edit, summary, onAsk }: Props) {
  const [chosen, setChosen] = useState(-1);
  const [problem, setProblem] = useState("");
  const [pending, setPending] = useState<Role | null>(null); // asked for and not answered yet: keys may come quickly
  const fields = useRef(new Map<string, HTMLInputElement>());
  const id = useId();
  const { round, roles, can_wait } = summary;
  const inSeconds = summary.counts.endsWith(" s"); // of a practice without counts; by hand there are counts all the same
  const setCount = async (role: Role, counts: number) => {
    if (!Number.isInteger(counts) || counts < 0) return;
    const next = { phase: role.phase, counts };
    setPending(next);
    const why = await onAsk({ do: "count", ...next });
    if (why === null) return; // there is a newer one to come
    setProblem(why);
    setPending((p) => (p === next ? null : p));
  };
  const waits = (i: number) => {
    const { kind } = round[i]!;
    const first = round.findIndex((phase) => phase.kind === kind) === i; // one switch for all of a kind
    if (!first || !can_wait.includes(kind)) return null;
    const on = summary.waits.includes(kind);
    return (
      <Form.Check
        className="beside"
        type="switch"
        id={`${id}-waits-${kind}`}
        label={t("plan.waits")}
        aria-label={t("plan.waits-for-me", { names: names()[kind] })}
        checked={on}
        onChange={() => {
          const next = on ? summary.waits.filter((phase) => phase !== kind) : [...summary.waits, kind];
          void onAsk(
            next.length === 0 ? { do: "pacer", pacer: "beat" } : { do: "pacer", pacer: "hand", waits: next },
          ).then((why) => setProblem(why ?? ""));
        }}
      />
    );
  };
  return (
    <div className="roundeditor">
      <RoundSheet
        phases={round}
        lamp={13}
        beside={summary.can_wait.length === 0 ? undefined : waits}
        onPhase={
          roles.length === 0
            ? undefined
            : {
                chosen,
                choose: (i) => {
                  setChosen(i);
                  fields.current.get(round[i]!.kind)?.focus();
                },
              }
        }
      />
      <div className="roles">
        {roles
          .map((planned) => (planned.phase === pending?.phase ? pending : planned))
          .map((role) => (
            <div key={role.phase} className="role">
              <label htmlFor={`${id}${role.phase}`}>{names()[role.phase]}</label>
              <Button
                size="sm"
                variant="outline-secondary"
                aria-label={t("plan.one-fewer", { names: names()[role.phase] })}
                onClick={() => void setCount(role, role.counts - 1)}
              >
                −
              </Button>
              <Form.Control
                id={`${id}${role.phase}`}
                ref={(field: HTMLInputElement | null) => {
                  if (field) fields.current.set(role.phase, field);
                }}
                size="sm"
                type="number"
                min={0}
                value={role.counts}
                onFocus={() => setChosen(round.findIndex((phase) => phase.kind === role.phase))}
                onChange={(e) => void setCount(role, Number(e.target.value))}
              />
              <Button
                size="sm"
                variant="outline-secondary"
                aria-label={t("plan.one-more", { names: names()[role.phase] })}
                onClick={() => void setCount(role, role.counts + 1)}
              >
                +
              </Button>
              <span className="unit">{inSeconds ? "s" : ""}</span>
            </div>
          ))}
        {problem !== "" && <p className="wrong">{problem}</p>}
      </div>
      {round[chosen] && (
        <PhaseEditor
          key={round[chosen].kind}
          edit={edit}
          summary={summary}
          phase={round[chosen]}
          onAsk={onAsk}
        />
      )}
    </div>
  );
}

type PhaseProps = Props & { phase: ScorePhase };

/** PhaseEditor is what else can be chosen of a phase: its side, how wide the nostrils are, and what is said at it. */
function PhaseEditor({ edit, summary, phase, onAsk }: PhaseProps) {
  const [words, setWords] = useState("");
  const [problem, setProblem] = useState("");
  const id = useId();
  const takes = (field: string) => summary.offers.some((offer) => offer.field === field);
  const widths = edit.doc.aperture as { [phase: string]: string } | undefined;
  const narrow = widths?.[phase.kind] === "narrow";
  const say = async () => {
    const before = summary.own_words === "" ? "" : `${summary.own_words}\n`;
    const why = await onAsk({
      do: "own-words",
      text: `${before}every ${phase.kind}: ${words}`,
    });
    setProblem(why ?? t("plan.another-change-was-being-made-press"));
    if (why === "") setWords("");
  };
  return (
    <div className="phase">
      {takes("side") && (phase.through === "left" || phase.through === "right") && (
        <Button
          size="sm"
          variant="outline-secondary"
          onClick={() => setField(edit, "side", edit.doc.side === "right" ? undefined : "right")}
        >
          {t("plan.begin-on", { side: edit.doc.side === "right" })}
        </Button>
      )}
      {takes(`aperture.${phase.kind}`) && (
        <Button
          size="sm"
          variant="outline-secondary"
          onClick={() =>
            setField(edit, "aperture", {
              inhale: "wide",
              exhale: "wide",
              ...widths,
              [phase.kind]: narrow ? "wide" : "narrow",
            })
          }
        >
          {narrow ? t("plan.nostrils-wide") : t("plan.nostrils-narrowed")}
        </Button>
      )}
      <form
        onSubmit={(e) => {
          e.preventDefault();
          void say();
        }}
      >
        <label htmlFor={id}>{t("plan.say-at-every", { word: phase.word })}</label>
        <Form.Control id={id} size="sm" value={words} onChange={(e) => setWords(e.target.value)} />
        <Button size="sm" type="submit" variant="outline-secondary" disabled={words.trim() === ""}>
          {t("plan.add")}
        </Button>
      </form>
      {problem !== "" && <p className="wrong">{problem}</p>}
    </div>
  );
}
