import { useState } from "react";
import { Form } from "react-bootstrap";
import { text } from "../frame/editing/fields";
import { type Edit, set } from "../frame/editing/Steps";
import type { PassageSummary } from "../wire/contract";
import { BeatSheet } from "./BeatSheet";
import { t, text as say } from "../language/text";

/**
 * BesideEditor chooses what those do, in the same time, who do not hold or who breathe shorter: what the application offers, the
 * gentlest first, or counts of one's own. Both lanes are drawn with the same beats under each other.
 */
export function BesideEditor({ edit, summary }: { edit: Edit; summary: PassageSummary }) {
  const value = text(edit.doc.beside);
  const offered = value === "" || summary.lanes.some((lane) => lane.beside === value);
  const [writing, setWriting] = useState(false);
  const own = writing || !offered;
  return (
    <>
      <div className="fields">
        <label className="labelled">
          <span>{t("plan.others-meanwhile")}</span>
          <Form.Select
            value={own ? "own" : value}
            onChange={(e) => {
              setWriting(e.target.value === "own");
              if (e.target.value !== "own") set(edit, "beside", e.target.value);
            }}
          >
            <option value="">{t("plan.nothing-everybody-together")}</option>
            {summary.lanes.map((lane) => (
              <option key={lane.beside} value={lane.beside}>
                {say(lane.says)}
              </option>
            ))}
            <option value="own">{t("plan.a-shorter-breath-of-my-own")}</option>
          </Form.Select>
        </label>
        {own && (
          <label className="labelled">
            <span>{t("plan.its-counts")}</span>
            <Form.Control
              placeholder="4:4"
              value={value === "breathe" ? "" : value}
              onChange={(e) => set(edit, "beside", e.target.value)}
            />
          </label>
        )}
      </div>
      {summary.lane_round.length > 0 && <BeatSheet main={summary.round} beside={summary.lane_round} />}
    </>
  );
}
