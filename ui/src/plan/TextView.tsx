import { planTextQuery } from "./queries";
import "../frame/paper/paper.css";
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { Button } from "react-bootstrap";
import { useParams } from "react-router";
import { ErrorAlert } from "../frame/shell/ErrorAlert";
import { Loading } from "../frame/shell/Loading";
import { Paper } from "../frame/paper/Paper";

/** TextView is a plan as plain text, one line a passage: to be kept, sent, changed and read in again. */
export function TextView() {
  const id = Number(useParams().id);
  const [copied, setCopied] = useState("");
  const plan = useQuery(planTextQuery(id));
  if (!plan.data)
    return plan.error ? <ErrorAlert error={plan.error} /> : <Loading what="Writing the plan as text" />;
  const { text, left } = plan.data;
  const copy = async () => {
    try {
      await navigator.clipboard.writeText(text);
      setCopied("Copied.");
    } catch {
      setCopied("This browser does not let a page copy text: select the text and copy it yourself.");
    }
  };
  return (
    <Paper
      back={`/plan/${id}`}
      tools={
        <>
          <span role="status">{copied}</span>
          <Button variant="outline-primary" onClick={() => void copy()}>
            Copy
          </Button>
          <a
            className="btn btn-outline-primary"
            download="class.txt"
            href={`data:text/plain;charset=utf-8,${encodeURIComponent(text)}`}
          >
            Download
          </a>
        </>
      }
    >
      <pre className="plaintext">{text}</pre>
      {left.length > 0 && <p>The text does not say: {left.join(", ")}. The plan file does.</p>}
      <p className="again">
        Read it in again with <em>From a file</em> on Today, or with <code>lantern plan</code>.
      </p>
    </Paper>
  );
}
