import { planTextQuery } from "./queries";
import "../frame/paper/paper.css";
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { Button } from "react-bootstrap";
import { useParams } from "react-router";
import { ErrorAlert } from "../frame/shell/ErrorAlert";
import { Loading } from "../frame/shell/Loading";
import { Paper } from "../frame/paper/Paper";
import { rich, t } from "../language/text";

/** TextView is a plan as plain text, one line a passage: to be kept, sent, changed and read in again. */
export function TextView() {
  const id = Number(useParams().id);
  const [copied, setCopied] = useState("");
  const plan = useQuery(planTextQuery(id));
  if (!plan.data)
    return plan.error ? (
      <ErrorAlert error={plan.error} />
    ) : (
      <Loading what={t("plan.writing-the-plan-as-text")} />
    );
  const { text, left } = plan.data;
  const copy = async () => {
    try {
      await navigator.clipboard.writeText(text);
      setCopied(t("plan.copied"));
    } catch {
      setCopied(t("plan.this-browser-does-not-let"));
    }
  };
  return (
    <Paper
      back={`/plan/${id}`}
      tools={
        <>
          <span role="status">{copied}</span>
          <Button variant="outline-primary" onClick={() => void copy()}>
            {t("plan.copy")}
          </Button>
          <a
            className="btn btn-outline-primary"
            download="class.txt"
            href={`data:text/plain;charset=utf-8,${encodeURIComponent(text)}`}
          >
            {t("plan.download")}
          </a>
        </>
      }
    >
      <h1 className="visually-hidden">{t("plan.as-text")}</h1>
      <pre className="plaintext">{text}</pre>
      {left.length > 0 && <p>{t("plan.the-text-does-not-say", { value: left.join(", ") })}</p>}
      <p className="again">
        {rich("plan.read-it-in-again", {
          em: <em>{t("frame.from-a-file")}</em>,
          code: <code>{t("plan.lantern-plan")}</code>,
        })}
      </p>
    </Paper>
  );
}
