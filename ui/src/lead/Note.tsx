import { useState } from "react";
import { Button } from "react-bootstrap";
import { Pad } from "./Pad";
import { usePadKeys } from "./usePadKeys";
import { rich, t } from "../language/text";

/** The short list, each with its number. */
const often = () => [
  t("lead.settled"),
  t("lead.restless"),
  t("lead.hands-tire"),
  t("lead.a-latecomer"),
  t("lead.some-dizzy"),
  t("lead.too-quick-for-some"),
  t("lead.one-more-would-have-been-good"),
];

/** Note is a field, which has every letter from the start, and a short list by number as long as it is empty. */
export function Note({
  onClose,
  onNote,
}: {
  onClose: () => void;
  onNote: (text: string, next: boolean) => void;
}) {
  const [typed, setTyped] = useState("");
  usePadKeys((key) => {
    const text = typed === "" ? often()[Number(key) - 1] : undefined;
    if (text) onNote(text, false);
    return text !== undefined;
  });
  return (
    <Pad title={t("frame.note")} onClose={onClose}>
      <form
        onSubmit={(e) => {
          e.preventDefault();
          if (typed.trim() === "") onClose();
          else onNote(typed.trim(), false);
        }}
      >
        <input
          className="form-control form-control-lg"
          aria-label={t("frame.note")}
          placeholder={t("lead.type-or-press-a-number")}
          autoFocus
          maxLength={500}
          value={typed}
          onChange={(e) => setTyped(e.target.value)}
          onKeyDown={(e) => {
            if (e.key !== "Enter" || !e.shiftKey || typed.trim() === "") return;
            e.preventDefault();
            onNote(typed.trim(), true);
          }}
        />
        <Button type="submit" size="lg">
          <kbd>Enter</kbd> {t("lead.note-it")}
        </Button>
        <Button
          size="sm"
          variant="outline-primary"
          disabled={typed.trim() === ""}
          onClick={() => onNote(typed.trim(), true)}
        >
          <kbd>Shift</kbd>
          {rich("lead.for-next-time", { kbd: <kbd>Enter</kbd> })}
        </Button>
      </form>
      <div className="signals">
        {often().map((text, i) => (
          <Button key={text} variant="outline-secondary" onClick={() => onNote(text, false)}>
            <kbd>{i + 1}</kbd> {text}
          </Button>
        ))}
      </div>
    </Pad>
  );
}
