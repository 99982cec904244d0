import { runningQuery } from "../../wire/queries";
import { useQuery } from "@tanstack/react-query";
import { Container } from "react-bootstrap";
import { Link, Outlet } from "react-router";
import { rich, t } from "../../language/text";

const every = 5000; // ms

/**
 * ReturnToClass leads back to the class that is being led, from every page of the teacher's. It asks for nothing but itself, so
 * that it is there whatever else fails.
 */
export function ReturnToClass() {
  const running = useQuery({ ...runningQuery, refetchInterval: every });
  if (!running.data?.class_id) return null;
  return (
    <div className="running" role="status">
      <Container fluid="xl">
        <span>
          {rich("frame.is-being-led", {
            strong: <strong>{running.data.title || t("frame.a-class")}</strong>,
          })}
        </span>
        <Link className="btn btn-primary" to={`/lead/${running.data.class_id}`}>
          {t("frame.return-to-class")}
        </Link>
      </Container>
    </div>
  );
}

/** Framed is a page of the teacher's with the way back above it. */
export function Framed() {
  return (
    <>
      <ReturnToClass />
      <Outlet />
    </>
  );
}
