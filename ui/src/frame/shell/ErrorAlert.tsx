import { Button } from "react-bootstrap";
import { Message } from "./Message";
import { failureText, t } from "../../language/text";
import { useAllTexts } from "../../language/useAllTexts";

/** ErrorAlert tells what went wrong, and offers to try again where that can help. */
export function ErrorAlert({ error, retry }: { error: Error; retry?: () => void }) {
  const ready = useAllTexts(); // an error of Today can be of any kind
  return (
    <Message variant="danger" className="d-flex justify-content-between align-items-center">
      <span>{ready ? failureText(error) : "…"}</span>
      {retry && (
        <Button variant="outline-danger" onClick={retry}>
          {t("frame.try-again")}
        </Button>
      )}
    </Message>
  );
}
