import { Button, Modal } from "react-bootstrap";
import { t } from "../../language/text";
import { TranslatedCautions } from "./care";

/** GeneralCareCard is the caution for everyone, to be read. */
export function GeneralCareCard({ text, onClose }: { text: string; onClose: () => void }) {
  return (
    <Modal show centered onHide={onClose} aria-labelledby="care">
      <Modal.Header closeButton closeLabel={t("frame.close")}>
        <Modal.Title id="care">{t("frame.before-anything-else")}</Modal.Title>
      </Modal.Header>
      <Modal.Body>
        <p>{text}</p>
        <TranslatedCautions />
        <p className="mb-0">{t("frame.every-strong-practice-shows-its-own")}</p>
      </Modal.Body>
      <Modal.Footer>
        <Button onClick={onClose} autoFocus>
          {t("frame.i-have-read")}
        </Button>
      </Modal.Footer>
    </Modal>
  );
}
