import { runningQuery } from "../../wire/queries";
import { useQuery } from "@tanstack/react-query";
import { Container } from "react-bootstrap";
import { Link, Outlet } from "react-router";

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
          <strong>{running.data.title || "A class"}</strong> is being led.
        </span>
        <Link className="btn btn-primary" to={`/lead/${running.data.class_id}`}>
          Return to class
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
