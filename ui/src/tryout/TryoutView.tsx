import { useMutation } from "@tanstack/react-query";
import { Button, Card, Col, Row } from "react-bootstrap";
import { Link, useNavigate } from "react-router";
import { ErrorAlert } from "../frame/shell/ErrorAlert";
import { LanguageChoice } from "../frame/shell/LanguageChoice";
import { t } from "../language/text";
import { post } from "../wire/api";
import type { Score } from "../wire/contract";
import { Shell } from "./Shell";

/** TryoutView is what can be tried on this page, and what cannot. */
export function TryoutView() {
  const navigate = useNavigate();
  const begin = useMutation({
    mutationFn: () => post<Score>("/sample", {}),
    onSuccess: (score) => void navigate(`/lead/${score.class_id}`),
  });
  return (
    <Shell view="today">
      <h1>{t("rehearse.try-vast-lantern")}</h1>
      <p className="lead">{t("rehearse.this-page-needs-no-server")}</p>
      <Row className="g-4 mb-4">
        <Col md={6}>
          <Card>
            <Card.Body>
              <h2>{t("rehearse.a-sample-class")}</h2>
              <p>{t("rehearse.a-sample-class-is")}</p>
              <Button size="lg" disabled={begin.isPending} onClick={() => begin.mutate()} autoFocus>
                {t("rehearse.lead-the-sample")}
              </Button>
              {begin.isError && <ErrorAlert error={begin.error} />}
            </Card.Body>
          </Card>
        </Col>
        <Col md={6}>
          <Card>
            <Card.Body>
              <h2>{t("rehearse.rehearse")}</h2>
              <p>{t("rehearse.a-rehearsal-is")}</p>
              <Link className="btn btn-lg btn-primary" to="/rehearse">
                {t("rehearse.to-the-tasks")}
              </Link>
            </Card.Body>
          </Card>
        </Col>
      </Row>
      <LanguageChoice />
      <p className="text-secondary">{t("rehearse.not-on-this-page")}</p>
    </Shell>
  );
}
