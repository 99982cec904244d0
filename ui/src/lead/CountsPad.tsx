import { useState } from "react";
import { Button, Form } from "react-bootstrap";
import phases from "../../phases.json";
import type { Adjust, ScorePassage } from "../wire/contract";
import { Pad } from "./Pad";
import { t, wordOf } from "../language/text";

type Props = {
  passage: ScorePassage;
  verbs: Adjust["do"][];
  onAdjust: (press: Omit<Adjust, "key">) => void;
  onClose: () => void;
};

/** CountsPad gives the rounds other counts, or other strokes. Shorter holds act at once, all else with the next round. */
export function CountsPad({ passage, verbs, onAdjust, onClose }: Props) {
  const [counts, setCounts] = useState<number[]>(passage.in_force.four);
  const [strokes, setStrokes] = useState(passage.in_force.strokes);
  const strokesHere = verbs.includes("strokes");
  const give = () => {
    onAdjust(strokesHere ? { do: "strokes", to: strokes } : { do: "counts", to: counts });
    onClose();
  };
  const field = (label: string, value: number, put: (n: number) => void, first = false) => (
    <label key={label}>
      <span>{label}</span>
      <Form.Control
        type="number"
        size="lg"
        autoFocus={first}
        onFocus={(e) => e.target.select()}
        value={value}
        onChange={(e) => put(Number(e.target.value))}
      />
    </label>
  );
  return (
    <Pad title={strokesHere ? t("lead.strokes-a-round") : t("frame.counts")} onClose={onClose}>
      <Form
        onSubmit={(e) => {
          e.preventDefault();
          give();
        }}
      >
        <div className="fourcounts">
          {strokesHere
            ? field(wordOf("verb", "strokes"), strokes, setStrokes, true)
            : phases.ofABreath.map((name, i) =>
                field(wordOf("phase", name), counts[i]!, (n) => setCounts(counts.with(i, n)), i === 0),
              )}
        </div>
        <p className="text-secondary mb-0">
          <kbd>Enter</kbd> {t("lead.applies-a-shorter-hold-acts")}
        </p>
        <footer>
          <Button type="submit" size="lg">
            {t("lead.apply")}
          </Button>
        </footer>
      </Form>
    </Pad>
  );
}
