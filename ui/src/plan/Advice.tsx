import signpost from "bootstrap-icons/icons/signpost.svg?raw";
import { useState } from "react";
import { Alert, Button } from "react-bootstrap";
import { Icon } from "../frame/Icon";
import type { Advice as Piece } from "../wire/contract";
import type { Editor } from "./usePlanEditor";

/** What a button beside a piece of advice says, by the change that it makes. */
const takes: Partial<Record<Piece["do"], string>> = { advised: "Use it", talks: "Use these lengths" };

/** Advice is the advice on order and length; it forbids nothing, and each piece can be put away. */
export function Advice({ editor }: { editor: Editor }) {
  const { summary, ask } = editor;
  const [away, setAway] = useState<string[]>([]);
  const list = summary.advice.filter((a) => !away.includes(a.say));
  if (list.length === 0 || summary.passages.length === 0) return null;
  return (
    <section className="advice" aria-label="Advice">
      {list.map((a) => (
        <Alert key={a.say} variant="light" dismissible onClose={() => setAway([...away, a.say])}>
          <Icon of={signpost} /> <strong>{a.say}</strong> {a.why}{" "}
          {a.do !== "" && takes[a.do] && (
            <Button
              size="sm"
              variant="outline-primary"
              onClick={() => void ask({ do: a.do, passage: a.passage })}
            >
              {takes[a.do]}
            </Button>
          )}
        </Alert>
      ))}
    </section>
  );
}
