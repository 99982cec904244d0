import signpost from "bootstrap-icons/icons/signpost.svg?raw";
import { useEffect } from "react";
import { Alert, Button } from "react-bootstrap";
import { Icon } from "../frame/shell/Icon";
import type { Advice as Piece } from "../wire/contract";
import type { Editor } from "./usePlanEditor";
import { t, text } from "../language/text";

/** What a button beside a piece of advice says, by the change that it makes. */
const takes = (): Partial<Record<Piece["do"], string>> => ({
  advised: t("plan.use-it"),
  talks: t("plan.use-these-lengths"),
  apply: t("plan.do-it"),
});

/**
 * Advice is the advice on order and length; it forbids nothing. Each piece can be put away for this plan, and that can be taken
 * back like every other change.
 */
export function Advice({ editor }: { editor: Editor }) {
  const { document, summary, ask, change } = editor;
  const away = Array.isArray(document.dismissed) ? (document.dismissed as string[]) : [];
  // Earlier plans have the sentence in place of the key.
  const list = summary.advice.filter((a) => !away.includes(a.key) && !away.includes(text(a.say)));
  const done = (a: Piece) => ask({ do: a.do, passage: a.passage, text: a.key });
  const able = list.filter((a) => a.do !== "" && takes()[a.do]);
  useEffect(() => {
    const onKey = (e: KeyboardEvent) => {
      const piece = e.altKey && /^Digit[1-9]$/.test(e.code) ? able[Number(e.code.slice(5)) - 1] : undefined;
      if (!piece) return;
      e.preventDefault();
      void done(piece);
    };
    window.addEventListener("keydown", onKey);
    return () => window.removeEventListener("keydown", onKey);
  });
  if (list.length === 0 || summary.passages.length === 0) return null;
  return (
    <section className="advice" aria-label={t("plan.advice")}>
      {list.map((a) => (
        <Alert
          key={a.key}
          variant="light"
          dismissible
          closeLabel={t("plan.not-for-this-plan")}
          onClose={() => change({ document: { ...document, dismissed: [...away, a.key] } })}
        >
          <Icon of={signpost} /> <strong>{text(a.say)}</strong> {text(a.why)}{" "}
          {able.includes(a) && (
            <Button size="sm" variant="outline-primary" onClick={() => void done(a)}>
              {a.do !== "" && takes()[a.do]}{" "}
              {able.indexOf(a) < 9 && <kbd>{t("plan.alt", { a: able.indexOf(a) + 1 })}</kbd>}
            </Button>
          )}
        </Alert>
      ))}
    </section>
  );
}
