import { useCallback, useState } from "react";
import { Button, Form } from "react-bootstrap";
import { remoteName } from "../frame/keys/keyRows";
import { cardText, type Keys } from "../frame/keys/letters";
import type { Way } from "../frame/keys/presses";
import { usePresses } from "../frame/keys/usePresses";
import { t, text } from "../language/text";
import type { Settings } from "../wire/contract";

type Meanings = NonNullable<Settings["meanings"]>;
type Props = { keys: Keys; meanings: Meanings; onChange: (keys: Keys) => void };

const ways = (): { [way in Way]: string } => ({
  short: t("keys.short-press"),
  long: t("keys.long-press"),
  double: t("keys.two-presses"),
});

/** What pedals and remotes send, and people do not type with; the others are keys of the page itself. */
const ofThePage = [
  "Tab",
  "Enter",
  "Escape",
  " ",
  "Shift",
  "Control",
  "Alt",
  "Meta",
  "AltGraph",
  "CapsLock",
  "Unidentified",
];

/** Remote is what pedals and remotes mean, with a rehearsal: what is pressed is shown, and given its meaning at once. */
export function Remote({ keys, meanings, onChange }: Props) {
  const [last, setLast] = useState<{ key: string; way: Way; nth: number } | null>(null);
  const pressed = useCallback(
    (key: string, way: Way) => setLast((before) => ({ key, way, nth: (before?.nth ?? 0) + 1 })),
    [],
  );
  usePresses({ wants: (key) => (ofThePage.includes(key) ? [] : ["short", "long", "double"]), pressed });
  const means = (key: string, way: Way) =>
    keys.remote.find((r) => r.key === key && r.press === way)?.means ?? "none";
  const give = (key: string, press: Way, meaning: string) => {
    const others = keys.remote.filter((r) => r.key !== key || r.press !== press);
    onChange({
      ...keys,
      remote: meaning === "none" ? others : [...others, { key, press, means: meaning }],
    });
  };
  const sent = [...new Set([...keys.remote.map((r) => r.key), ...(last ? [last.key] : [])])];
  return (
    <section className="d-print-none">
      <h2>{t("keys.pedals-and-remotes")}</h2>
      <p className="text-secondary">{t("keys.a-pedal-or-a-presenters-remote")}</p>
      <div className="rehearsal" role="status">
        {last ? (
          <>
            <strong key={last.nth}>
              {remoteName(last.key)}, {ways()[last.way]}
            </strong>
            <span>{cardText(means(last.key, last.way))}</span>
          </>
        ) : (
          <>
            <strong>{t("keys.press-what-you-will-use")}</strong>
            <span>{t("keys.preview-only-it-shows-what-each")}</span>
          </>
        )}
      </div>
      <div className="remotes">
        {sent.map((key) => (
          <fieldset key={key} className={key === last?.key ? "heard" : ""}>
            <legend>{remoteName(key)}</legend>
            {Object.keys(ways()).map((way) => (
              <Form.Group key={way} controlId={`${key} ${way}`}>
                <Form.Label>{ways()[way]}</Form.Label>
                <Form.Select
                  size="sm"
                  value={means(key, way)}
                  onChange={(e) => give(key, way, e.target.value)}
                >
                  {meanings.map((m) => (
                    <option key={m.id} value={m.id}>
                      {text(m.says)}
                    </option>
                  ))}
                </Form.Select>
              </Form.Group>
            ))}
            <Button
              size="sm"
              variant="outline-secondary"
              onClick={() => onChange({ ...keys, remote: keys.remote.filter((r) => r.key !== key) })}
            >
              {t("frame.remove")}
            </Button>
          </fieldset>
        ))}
      </div>
    </section>
  );
}
