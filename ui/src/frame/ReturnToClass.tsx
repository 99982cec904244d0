import { useQuery } from "@tanstack/react-query";
import { Container } from "react-bootstrap";
import { Link, Outlet } from "react-router";
import { get } from "../wire/api";
import type { Running } from "../wire/contract";

const every = 5000; // ms

/**
 * ReturnToClass leads back to the class that is being led, from every page of the teacher's. It asks for nothing but itself, so
 * that it is there whatever else fails.
 */
export function ReturnToClass() {
  const running = useQuery({
    queryKey: ["running"],
    queryFn: () => get<Running>("/running"),
    refetchInterval: every,
    retry: false,
  });
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
