import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { Button, Form, Modal } from "react-bootstrap";
import { Link } from "react-router";
import { get, post } from "../wire/api";
import type { Course, CourseCard as Card, PlanSummary } from "../wire/contract";
import { ErrorAlert } from "../frame/ErrorAlert";
import { day, plural } from "../player/format";

/** CourseCard makes a course of a plan: the same class again and again, and one thing that grows. */
export function CourseCard({
  id,
  summary,
  onClose,
}: {
  id: number;
  summary: PlanSummary;
  onClose: () => void;
}) {
  const led = summary.passages.flatMap((p, i) => (p.rounds > 0 ? [{ number: i + 1, name: p.name }] : []));
  const [course, setCourse] = useState<Course>({
    classes: 7,
    days: 1,
    grow: "nothing",
    passage: led.at(-1)?.number ?? 0,
  });
  const make = useMutation({
    mutationFn: () => post<Card>(`/plans/${id}/course`, course),
    // The plan itself was changed too.
    onSuccess: (card) => card.stopped || window.location.reload(),
  });
  const set = (part: Partial<Course>) => setCourse({ ...course, ...part });
  if (make.data?.stopped) {
    return <Stopped words={make.data.stopped} />;
  }
  return (
    <Modal show centered onHide={onClose} aria-labelledby="course">
      <Form
        onSubmit={(e) => {
          e.preventDefault();
          make.mutate();
        }}
      >
        <Modal.Header closeButton>
          <Modal.Title id="course">A course</Modal.Title>
        </Modal.Header>
        <Modal.Body>
          {make.isError && <ErrorAlert error={make.error} />}
          {summary.starts_ms === null && <p>Give this class a time first: the others follow from it.</p>}
          <div className="d-flex gap-3">
            <Form.Group controlId="classes">
              <Form.Label>Classes</Form.Label>
              <Form.Control
                type="number"
                min={2}
                max={60}
                autoFocus
                value={course.classes}
                onChange={(e) => set({ classes: Number(e.target.value) })}
              />
            </Form.Group>
            <Form.Group controlId="days">
              <Form.Label>Days apart</Form.Label>
              <Form.Control
                type="number"
                min={1}
                max={60}
                value={course.days}
                onChange={(e) => set({ days: Number(e.target.value) })}
              />
            </Form.Group>
          </div>
          <div className="d-flex gap-3 mt-3">
            <Form.Group controlId="grow">
              <Form.Label>What grows from class to class</Form.Label>
              <Form.Select value={course.grow} onChange={(e) => set({ grow: e.target.value })}>
                <option value="nothing">nothing</option>
                <option value="rounds">one round</option>
                <option value="counts">one count, the ratio kept</option>
              </Form.Select>
            </Form.Group>
            {course.grow !== "nothing" && (
              <Form.Group controlId="grows">
                <Form.Label>of</Form.Label>
                <Form.Select
                  value={course.passage}
                  onChange={(e) => set({ passage: Number(e.target.value) })}
                >
                  {led.map((p) => (
                    <option key={p.number} value={p.number}>
                      {p.number}. {p.name}
                    </option>
                  ))}
                </Form.Select>
              </Form.Group>
            )}
          </div>
        </Modal.Body>
        <Modal.Footer>
          <Button type="submit" disabled={make.isPending || summary.starts_ms === null}>
            Make {plural(course.classes, "plan")}
          </Button>
        </Modal.Footer>
      </Form>
    </Modal>
  );
}

/** Stopped tells that a course was made in which something stops growing. */
function Stopped({ words }: { words: string }) {
  const goOn = () => window.location.reload();
  return (
    <Modal show centered onHide={goOn} aria-labelledby="made">
      <Modal.Header closeButton>
        <Modal.Title id="made">The course is made</Modal.Title>
      </Modal.Header>
      <Modal.Body>
        <p className="mb-0">{words}</p>
      </Modal.Body>
      <Modal.Footer>
        <Button autoFocus onClick={goOn}>
          Show it
        </Button>
      </Modal.Footer>
    </Modal>
  );
}

/** CourseStrip tells where in its course a plan stands, and moves it on when a day was missed. */
export function CourseStrip({ id }: { id: number }) {
  const queries = useQueryClient();
  const course = useQuery({ queryKey: ["course", id], queryFn: () => get<Card>(`/plans/${id}/course`) });
  const shift = useMutation({
    mutationFn: () => post<Card>(`/plans/${id}/course/shift`, {}),
    onSuccess: () => {
      void queries.invalidateQueries({ queryKey: ["today"] });
      window.location.reload();
    },
  });
  const card = course.data;
  if (!card || card.plans.length === 0) return null;
  return (
    <nav className="course" aria-label="Course">
      <ol>
        {card.plans.map((p, i) => (
          <li key={p.id}>
            <Link
              to={`/plan/${p.id}`}
              aria-current={p.id === id ? "page" : undefined}
              aria-label={`Class ${i + 1}, ${p.starts_ms === null ? "no time" : day(p.starts_ms)}`}
              title={p.starts_ms === null ? "" : day(p.starts_ms)}
            >
              {i + 1}
            </Link>
          </li>
        ))}
      </ol>
      <Button size="sm" variant="outline-secondary" disabled={shift.isPending} onClick={() => shift.mutate()}>
        Missed: this one and the later ones {plural(card.days, "day")} on
      </Button>
      <a href={`/api/plans/${id}/course/files`}>all of it for a substitute</a>
      {shift.isError && <span className="text-danger">{shift.error.message}</span>}
    </nav>
  );
}
