import { useQuery } from "@tanstack/react-query";
import { Form } from "react-bootstrap";
import { text } from "../frame/editing/fields";
import { languageName } from "../frame/shell/languageName";
import { text as fact, wordOf } from "../language/text";
import { questionText } from "../player/checkIn";
import { useSay } from "../player/say";
import { settingsQuery } from "../wire/queries";
import type { Editor } from "./usePlanEditor";

const screens = ["shown", "lamps", "hidden"];
const sides = ["left", "right"];

/**
 * InTheRoom is what holds for the whole class on the room's screens: what carries the count, and how the fingers lie at the nose
 * where a practice needs them.
 */
export function InTheRoom({ editor }: { editor: Editor }) {
  const handAtNose = editor.summary.passages.some((passage) =>
    passage.round.some((phase) => sides.includes(phase.through)),
  );
  const set = (field: string, value: string) => {
    const next = { ...editor.document, [field]: value };
    if (value === "") delete next[field];
    editor.change({ document: next });
  };
  return (
    <div className="intheroom">
      <Numbers given={text(editor.document.numbers)} onChange={(value) => set("numbers", value)} />
      <Ways question="chin" given={text(editor.document.chin)} onChange={(value) => set("chin", value)} />
      <CueWord editor={editor} />
      <Language given={text(editor.document.language)} onChange={(value) => set("language", value)} />
      <CheckIn given={text(editor.document.check_in)} onChange={(value) => set("check_in", value)} />
      {handAtNose && (
        <Fingers given={text(editor.document.fingers)} onChange={(value) => set("fingers", value)} />
      )}
    </div>
  );
}

type FieldProps = { given: string; onChange: (value: string) => void };

function Numbers({ given, onChange }: FieldProps) {
  return (
    <Form.Group controlId="room-numbers">
      <Form.Label>{wordOf("label", "numbers")}</Form.Label>
      <Form.Select
        size="sm"
        value={given || "shown"}
        onChange={(e) => onChange(e.target.value === "shown" ? "" : e.target.value)}
      >
        {given !== "" && !screens.includes(given) && <option value={given}>{given}</option>}
        {screens.map((screen) => (
          <option key={screen} value={screen}>
            {wordOf("label.numbers", screen)}
          </option>
        ))}
      </Form.Select>
    </Form.Group>
  );
}

/** Language is the language in which this class is led, where it is not the teacher's usual one. */
function Language({ given, onChange }: FieldProps) {
  const { data: settings } = useQuery(settingsQuery);
  const languages = settings?.languages ?? [];
  return (
    <Form.Group controlId="room-language">
      <Form.Label>{wordOf("label", "language")}</Form.Label>
      <Form.Select size="sm" value={given} onChange={(e) => onChange(e.target.value)}>
        <option value="">{wordOf("label.fingers", "school")}</option>
        {given !== "" && !languages.includes(given) && <option value={given}>{given}</option>}
        {languages.map((tag) => (
          <option key={tag} value={tag}>
            {languageName(tag)}
          </option>
        ))}
      </Form.Select>
    </Form.Group>
  );
}

const questions = ["side", "calm"] as const;

/** CheckIn is what the room is asked in one touch before the class and after it. */
function CheckIn({ given, onChange }: FieldProps) {
  const say = useSay();
  return (
    <Form.Group controlId="room-check-in">
      <Form.Label>{wordOf("label", "check-in")}</Form.Label>
      <Form.Select size="sm" value={given} onChange={(e) => onChange(e.target.value)}>
        <option value="">{wordOf("label.check-in", "none")}</option>
        {given !== "" && !(questions as readonly string[]).includes(given) && (
          <option value={given}>{given}</option>
        )}
        {questions.map((question) => (
          <option key={question} value={question}>
            {questionText(question, say)}
          </option>
        ))}
      </Form.Select>
    </Form.Group>
  );
}

/** Ways is one question of the school that this plan answers for itself. */
function Ways({ question, given, onChange }: FieldProps & { question: string }) {
  const { data: settings } = useQuery(settingsQuery);
  const asked = settings?.questions?.find(({ id }) => id === question);
  if (!asked) return null;
  return (
    <Form.Group controlId={`room-${question}`}>
      <Form.Label>{fact(asked.asks)}</Form.Label>
      <Form.Select size="sm" value={given} onChange={(e) => onChange(e.target.value)}>
        <option value="">{wordOf("label.fingers", "school")}</option>
        {asked.ways.map((way) => (
          <option key={way.id} value={way.id}>
            {fact(way.says)}
          </option>
        ))}
      </Form.Select>
    </Form.Group>
  );
}

/** CueWord has the word of each phase on the first count or on a beat before it, in all passages that can. */
function CueWord({ editor }: { editor: Editor }) {
  const { passages } = editor.document;
  const takes = (i: number) => editor.summary.passages[i]?.offers.some((offer) => offer.field === "word");
  const words = passages.filter((_, i) => takes(i)).map((passage) => text(passage.word) || "on");
  if (words.length === 0) return null;
  const one = words.every((word) => word === words[0]) ? words[0]! : "";
  const change = (word: string) =>
    editor.change({
      document: {
        ...editor.document,
        passages: passages.map((passage, i) => (takes(i) ? { ...passage, word } : passage)),
      },
    });
  return (
    <Form.Group controlId="room-word">
      <Form.Label>{wordOf("label", "word")}</Form.Label>
      <Form.Select size="sm" value={one} onChange={(e) => change(e.target.value)}>
        {one === "" && <option value="">{wordOf("label.word", "differs")}</option>}
        {["on", "before"].map((word) => (
          <option key={word} value={word}>
            {wordOf("label.word", word)}
          </option>
        ))}
      </Form.Select>
    </Form.Group>
  );
}

/** Fingers is the way of the fingers in this plan, or two ways side by side where it is left to people. */
function Fingers({ given, onChange }: FieldProps) {
  const { data: settings } = useQuery(settingsQuery);
  const ways = settings?.questions?.find((question) => question.id === "fingers")?.ways ?? [];
  const [first = "", second = ""] = given.split(" ");
  const options = (without: string) =>
    ways
      .filter((way) => way.id !== without)
      .map((way) => (
        <option key={way.id} value={way.id}>
          {fact(way.says)}
        </option>
      ));
  return (
    <>
      <Form.Group controlId="room-fingers">
        <Form.Label>{wordOf("label", "fingers")}</Form.Label>
        <Form.Select
          size="sm"
          value={first}
          onChange={(e) => onChange(e.target.value === "" ? "" : pair(e.target.value, second))}
        >
          <option value="">{wordOf("label.fingers", "school")}</option>
          {options("")}
        </Form.Select>
      </Form.Group>
      {first !== "" && (
        <Form.Group controlId="room-fingers-too">
          <Form.Label>{wordOf("label", "fingers-too")}</Form.Label>
          <Form.Select size="sm" value={second} onChange={(e) => onChange(pair(first, e.target.value))}>
            <option value="">{wordOf("label.fingers", "none")}</option>
            {options(first)}
          </Form.Select>
        </Form.Group>
      )}
    </>
  );
}

/** pair is one way, or two different ones with a space between. */
function pair(first: string, second: string): string {
  return second === "" || second === first ? first : `${first} ${second}`;
}
