import { useState } from "react";
import { Form } from "react-bootstrap";
import { readTimeOfDay, weekly } from "../../player/format";
import { t } from "../../language/text";

type Props = { value: string; onChange: (time: string) => void };

/**
 * TimeField is a time of day, stored as 18:30 and shown as the rest of the application shows times; the browser's own field would follow
 * the language of the browser's menus. What is no time stays in the field and is said.
 */
export function TimeField({ value, onChange }: Props) {
  const [typed, setTyped] = useState<string | null>(null);
  const wrong = typed !== null && typed.trim() !== "" && readTimeOfDay(typed) === null;
  return (
    <>
      <Form.Control
        value={typed ?? weekly(value)}
        placeholder={weekly("18:30")}
        isInvalid={wrong}
        onChange={(e) => {
          setTyped(e.target.value);
          const time = stored(e.target.value);
          if (time !== null) onChange(time);
        }}
        onBlur={() => {
          if (!wrong) setTyped(null);
        }}
      />
      <Form.Control.Feedback type="invalid">
        {t("frame.write-a-time-of-day", { value: weekly("18:30") })}
      </Form.Control.Feedback>
    </>
  );
}

/** stored is a typed time as it is stored, 18:30; empty for none, null for what is no time. */
function stored(text: string): string | null {
  if (text.trim() === "") return "";
  const seconds = readTimeOfDay(text);
  if (seconds === null) return null;
  const two = (n: number) => String(n).padStart(2, "0");
  return `${two(Math.floor(seconds / 3600))}:${two(Math.floor(seconds / 60) % 60)}`;
}
