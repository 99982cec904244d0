import { Form } from "react-bootstrap";
import { t, text } from "../language/text";
import type { Group, Groups } from "../wire/contract";

type Props = {
  all: Groups["conditions"];
  here: Group["conditions"];
  onChange: (here: Group["conditions"]) => void;
};

/** Conditions is how many people of a group have each condition. One that nobody has is not kept. */
export function Conditions({ all, here, onChange }: Props) {
  return (
    <fieldset className="conditions mt-3">
      <legend>{t("groups.in-the-room-how-many-never")}</legend>
      {all.map((c) => {
        const n = here[c.id] ?? 0;
        const put = (count: number) => {
          const next = { ...here, [c.id]: count };
          if (count === 0) delete next[c.id];
          onChange(next);
        };
        return (
          <div key={c.id} className={n > 0 ? "present" : ""}>
            <Form.Check
              id={`has-${c.id}`}
              label={text(c.name)}
              checked={n > 0}
              onChange={(e) => put(e.target.checked ? 1 : 0)}
            />
            {n > 0 && (
              <Form.Control
                type="number"
                size="sm"
                min={1}
                max={999}
                aria-label={t("groups.how-many", { name: text(c.name) })}
                value={n}
                onChange={(e) => put(Math.max(1, Number(e.target.value)))}
              />
            )}
          </div>
        );
      })}
    </fieldset>
  );
}
