import { runningQuery } from "../../wire/queries";
import { useQuery } from "@tanstack/react-query";
import { useSyncExternalStore } from "react";
import { Container } from "react-bootstrap";
import { Link, Outlet } from "react-router";
import { followHeld, shownFrom } from "../../wire/held";
import { runningHereQuery } from "../queries";
import { rich, t } from "../../language/text";

const every = 5000; // ms

/**
 * ReturnToClass leads back to the class that is being led, from every page of the teacher's. It asks for nothing but itself, so
 * that it is there whatever else fails. A class that was begun on this device is there too while the program does not know it.
 */
export function ReturnToClass() {
  const running = useQuery({ ...runningQuery, refetchInterval: every });
  const held = useSyncExternalStore(followHeld, shownFrom) !== null;
  const here = useQuery({ ...runningHereQuery, enabled: held, refetchInterval: every });
  const shown = (held && here.data) || running.data;
  if (!shown?.class_id) return null;
  return (
    <div className="running" role="status">
      <Container fluid="xl">
        <span>
          {rich("frame.is-being-led", {
            strong: <strong>{shown.title || t("frame.a-class")}</strong>,
          })}
        </span>
        <Link className="btn btn-primary" to={`/lead/${shown.class_id}`}>
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
