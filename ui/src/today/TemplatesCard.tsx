import { templatesQuery } from "./queries";
import { useQuery } from "@tanstack/react-query";
import { ListGroup, Modal } from "react-bootstrap";
import { ErrorAlert } from "../frame/shell/ErrorAlert";
import { Loading } from "../frame/shell/Loading";
import { minutes } from "../player/format";
import { t } from "../language/text";

type Props = { onChoose: (template: string) => void; onClose: () => void };

/** TemplatesCard shows the plans of ours to begin with. */
export function TemplatesCard({ onChoose, onClose }: Props) {
  const templates = useQuery(templatesQuery);
  return (
    <Modal show centered scrollable onHide={onClose} aria-labelledby="templates">
      <Modal.Header closeButton closeLabel={t("frame.close")}>
        <Modal.Title id="templates">{t("today.new-plan-from-a-template")}</Modal.Title>
      </Modal.Header>
      <Modal.Body className="p-0">
        {templates.isPending && <Loading what={t("today.loading-the-templates")} />}
        {templates.isError && <ErrorAlert error={templates.error} retry={() => void templates.refetch()} />}
        <ListGroup variant="flush" className="templates">
          {templates.data?.map((t) => (
            <ListGroup.Item key={t.id} action onClick={() => onChoose(t.id)}>
              <strong>{t.title}</strong> {minutes(t.length_ms)}
              <small>{t.about}</small>
            </ListGroup.Item>
          ))}
        </ListGroup>
      </Modal.Body>
    </Modal>
  );
}
