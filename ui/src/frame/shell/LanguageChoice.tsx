import { useMutation } from "@tanstack/react-query";
import { Form } from "react-bootstrap";
import { choose, isWhole, languages, tag } from "../../language/catalogue";
import { t } from "../../language/text";
import { languageName } from "./languageName";
import { Message } from "./Message";

/** LanguageChoice is the language of the screens on this device. Each is named as those who speak it call it. */
export function LanguageChoice() {
  const change = useMutation({ mutationFn: choose });
  return (
    <Form.Group controlId="screen-language" className="mb-3">
      <Form.Label>{t("frame.language-of-the-screens")}</Form.Label>
      <Form.Select value={tag()} disabled={change.isPending} onChange={(e) => change.mutate(e.target.value)}>
        {languages.map((one) => (
          <option key={one} value={one} lang={one}>
            {isWhole(one) ? languageName(one) : t("frame.language-in-part", { language: languageName(one) })}
          </option>
        ))}
      </Form.Select>
      {change.isError && <Message variant="danger">{t("frame.language-did-not-load")}</Message>}
    </Form.Group>
  );
}
