import { useState } from "react";
import { Button, Form } from "react-bootstrap";
import type { Change, PassageSummary } from "../wire/contract";
import { readTimeOfDay, secondOfDay } from "../player/format";
import { t } from "../language/text";

type Props = {
  summary: PassageSummary;
  starts: number | null;
  onAsk: (change: Change) => Promise<string | null>;
};

/** EndAt makes one passage end at a time of day, or of the class where no start is set, by its rounds or its tempo. */
export function EndAt({ summary, starts, onAsk }: Props) {
  const [time, setTime] = useState("");
  const [problem, setProblem] = useState("");
  const solve = async (by: "rounds-to-end" | "tempo-to-end") => {
    const end = starts === null ? ofClass(time) : ofDay(time, starts);
    if (end === null) {
      setProblem(
        starts === null
          ? t("plan.a-time-of-the-class")
          : t("plan.a-time-of-day", { starts: secondOfDay(starts) }),
      );
      return;
    }
    setProblem((await onAsk({ do: by, end_ms: end })) ?? "");
  };
  return (
    <div className="endat">
      <label className="labelled">
        <span>{t("plan.end-at")}</span>
        <Form.Control
          value={time}
          placeholder={starts === null ? "12:40" : secondOfDay(starts + summary.start_ms + summary.length_ms)}
          isInvalid={problem !== ""}
          aria-label={t("plan.time-at-which-ends", { name: summary.name })}
          onChange={(e) => {
            setTime(e.target.value);
            setProblem("");
          }}
        />
      </label>
      <Button size="sm" variant="outline-secondary" onClick={() => void solve("rounds-to-end")}>
        {t("plan.by-its-rounds")}
      </Button>
      <Button size="sm" variant="outline-secondary" onClick={() => void solve("tempo-to-end")}>
        {t("plan.by-its-tempo")}
      </Button>
      {problem && <span className="wrong">{problem}</span>}
    </div>
  );
}

/** ofClass reads a time of the class, 12:40 or 1:02:40, in ms; null where it is none. */
function ofClass(text: string): number | null {
  const match = /^(?:(\d+):)?(\d+):([0-5]?\d)$/.exec(text.trim());
  if (!match) return null;
  return (Number(match[1] ?? 0) * 3600 + Number(match[2]) * 60 + Number(match[3])) * 1000;
}

/** ofDay reads a time of day, 18:42, 18:42:30 or 6:42 pm, as a time of the class that starts then. */
function ofDay(text: string, starts: number): number | null {
  const seconds = readTimeOfDay(text);
  if (seconds === null) return null;
  const at = new Date(starts);
  at.setHours(0, 0, seconds, 0);
  if (at.getTime() < starts) at.setDate(at.getDate() + 1); // a class over midnight
  return at.getTime() - starts;
}
