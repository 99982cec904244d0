import { useId, useRef, useState } from "react";
import { Button, Form } from "react-bootstrap";
import type { Change, PassageSummary, Role } from "../wire/contract";
import { RoundSheet } from "../player/RoundSheet";

type Props = {
  summary: PassageSummary;
  onAsk: (change: Change) => Promise<string | null>;
};

const names: Partial<Record<Role["phase"], string>> = {
  inhale: "Inhale",
  hold: "Hold",
  exhale: "Exhale",
  empty: "Empty hold",
};

/**
 * RoundEditor is a round as a drawing: a phase is clicked, or reached with the Tab key, to change its counts, and its own words
 * stand with it.
 */
export function RoundEditor({ summary, onAsk }: Props) {
  const [chosen, setChosen] = useState(-1);
  const [problem, setProblem] = useState("");
  const fields = useRef(new Map<string, HTMLInputElement>());
  const id = useId();
  const { round, roles } = summary;
  const open = round.some((phase) => phase.open) || summary.counts.endsWith(" s");
  const set = async (role: Role, counts: number) => {
    if (!Number.isInteger(counts) || counts < 0) return;
    setProblem((await onAsk({ do: "count", phase: role.phase, counts })) ?? "");
  };
  return (
    <div className="roundeditor">
      <RoundSheet
        phases={round}
        lamp={13}
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
        {roles.map((role) => (
          <div key={role.phase} className="role">
            <label htmlFor={`${id}${role.phase}`}>{names[role.phase]}</label>
            <Button
              size="sm"
              variant="outline-secondary"
              aria-label={`One fewer, ${names[role.phase]}`}
              onClick={() => void set(role, role.counts - 1)}
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
              onChange={(e) => void set(role, Number(e.target.value))}
            />
            <Button
              size="sm"
              variant="outline-secondary"
              aria-label={`One more, ${names[role.phase]}`}
              onClick={() => void set(role, role.counts + 1)}
            >
              +
            </Button>
            <span className="unit">{open ? "s" : ""}</span>
          </div>
        ))}
        {problem !== "" && <p className="wrong">{problem}</p>}
      </div>
    </div>
  );
}
