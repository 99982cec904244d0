import { useState } from "react";
import { Button } from "react-bootstrap";
import { Pad } from "./Pad";
import { usePadKeys } from "./usePadKeys";

/** The short list, each with its number. */
const often = [
  "settled",
  "restless",
  "hands tire",
  "a latecomer",
  "some dizzy",
  "too quick for some",
  "one more would have been good",
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
    const text = typed === "" ? often[Number(key) - 1] : undefined;
    if (text) onNote(text, false);
    return text !== undefined;
  });
  return (
    <Pad title="Note" onClose={onClose}>
      <form
        onSubmit={(e) => {
          e.preventDefault();
          if (typed.trim() === "") onClose();
          else onNote(typed.trim(), false);
        }}
      >
        <input
          className="form-control form-control-lg"
          aria-label="Note"
          placeholder="type, or press a number"
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
          <kbd>Enter</kbd> Note it
        </Button>
        <Button
          size="sm"
          variant="outline-primary"
          disabled={typed.trim() === ""}
          onClick={() => onNote(typed.trim(), true)}
        >
          <kbd>Shift</kbd>+<kbd>Enter</kbd> For next time
        </Button>
      </form>
      <div className="signals">
        {often.map((text, i) => (
          <Button key={text} variant="outline-secondary" onClick={() => onNote(text, false)}>
            <kbd>{i + 1}</kbd> {text}
          </Button>
        ))}
      </div>
    </Pad>
  );
}
