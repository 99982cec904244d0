import { Button, Container } from "react-bootstrap";
import { useRouteError } from "react-router";
import { Message } from "./Message";
import { ReturnToClass } from "./ReturnToClass";
import { t } from "../../language/text";

/** ScreenStopped stands where a screen failed by a mistake of ours. The class itself is kept by the application and goes on. */
export function ScreenStopped() {
  const error = useRouteError();
  return (
    <>
      <ReturnToClass />
      <Container as="main" className="py-5">
        <Message variant="danger">
          <h1>{t("frame.this-screen-has-stopped")}</h1>
          <p>{t("frame.nothing-is-lost-a-class")}</p>
          <Button size="lg" autoFocus onClick={() => location.reload()}>
            {t("frame.load-again")}
          </Button>
          <p className="mt-3 mb-0">
            <small>{error instanceof Error ? error.message : t("frame.unknown-error")}</small>
          </p>
        </Message>
      </Container>
    </>
  );
}
