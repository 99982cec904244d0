import { Form, Modal } from "react-bootstrap";
import type { Carries } from "../player/carries";
import type { Sides } from "../player/phases";
import { type Awake, awakeText } from "../player/useAwake";
import { languageName } from "../frame/shell/languageName";
import { roomLanguages, useSay } from "../player/say";
import { type Look, looks } from "./look";

/** counts is what a screen can show the count with. */
const counts: Carries[] = ["class", "both", "numbers", "lamps", "hidden"];

type Props = {
  /** the tag of a language; empty for that of the class */
  language: string;
  onLanguage: (tag: string) => void;
  carries: Carries;
  onCarries: (carries: Carries) => void;
  sides: Sides;
  onSides: (sides: Sides) => void;
  look: Look;
  onLook: (look: Look) => void;
  awake: Awake;
  onClose: () => void;
};

/** ScreenCard is what somebody in the room chooses for the own screen; nobody else's changes. */
export function ScreenCard({
  language,
  onLanguage,
  carries,
  onCarries,
  sides,
  onSides,
  look,
  onLook,
  awake,
  onClose,
}: Props) {
  const say = useSay();
  return (
    <Modal show centered onHide={onClose} aria-labelledby="screen">
      <Modal.Header closeButton closeLabel={say("close")}>
        <Modal.Title id="screen">{say("this-screen")}</Modal.Title>
      </Modal.Header>
      <Modal.Body>
        <Form.Group controlId="language" className="mb-3">
          <Form.Label>{say("language")}</Form.Label>
          <Form.Select value={language} onChange={(e) => onLanguage(e.target.value)}>
            <option value="">{say("language-class")}</option>
            {roomLanguages.map((tag) => (
              <option key={tag} value={tag}>
                {languageName(tag)}
              </option>
            ))}
          </Form.Select>
        </Form.Group>
        <Form.Group controlId="count">
          <Form.Label>{say("count")}</Form.Label>
          <Form.Select value={carries} onChange={(e) => onCarries(e.target.value as Carries)}>
            {counts.map((id) => (
              <option key={id} value={id}>
                {say(`count-${id}`)}
              </option>
            ))}
          </Form.Select>
        </Form.Group>
        <Form.Group controlId="look" className="mt-3">
          <Form.Label>{say("look")}</Form.Label>
          <Form.Select value={look} onChange={(e) => onLook(e.target.value as Look)}>
            {looks.map((id) => (
              <option key={id} value={id}>
                {say(`look-${id}`)}
              </option>
            ))}
          </Form.Select>
        </Form.Group>
        <Form.Group controlId="sides" className="mt-3">
          <Form.Label>{say("sides")}</Form.Label>
          <Form.Select value={sides} onChange={(e) => onSides(e.target.value as Sides)}>
            <option value="class">{say("sides-class")}</option>
            <option value="named">{say("sides-named")}</option>
            <option value="hand">{say("sides-hand")}</option>
          </Form.Select>
        </Form.Group>
        {awake !== "awake" && <p className="text-secondary mt-3 mb-0">{awakeText(awake, say)}</p>}
      </Modal.Body>
    </Modal>
  );
}
