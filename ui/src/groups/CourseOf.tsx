import { courseQuery } from "./queries";
import { useQuery } from "@tanstack/react-query";
import { lazy, Suspense, useState } from "react";
import { Button, ButtonGroup } from "react-bootstrap";
import { Link } from "react-router";
import type { PracticeCourse } from "../wire/contract";
import { ErrorAlert } from "../frame/shell/ErrorAlert";
import { Loading } from "../frame/shell/Loading";
import { plural, shortDay } from "../player/format";
import { type Metric, metrics } from "./metrics";
import { text } from "../language/text";
import { CheckIns } from "./CheckIns";

const Plot = lazy(() => import("./Plot")); // the library that draws it is large, and most views do not need it

/** CourseOf is what a group was taught over the weeks, and what next time, with what it rests on. */
export function CourseOf({ group }: { group: number }) {
  const [metric, setMetric] = useState<Metric>("rounds");
  const course = useQuery(courseQuery(group));
  if (course.isPending) return <Loading what="Loading the course" />;
  if (course.isError) return <ErrorAlert error={course.error} retry={() => void course.refetch()} />;
  const { practices, classes, streak, never, check_ins } = course.data;
  if (classes === 0)
    return (
      <p className="text-secondary">This group has not been taught yet. Its course will be shown here.</p>
    );
  return (
    <section aria-label="Course">
      <p className="text-secondary">
        {classes === 1 ? "1 class" : `${classes} classes`}
        {streak > 0 && `, the last ${streak === 1 ? "one" : streak} led as planned`}.
      </p>
      <ButtonGroup size="sm" className="mb-2 flex-wrap" aria-label="What is plotted">
        {metrics.map((m) => (
          <Button
            key={m.id}
            variant={m.id === metric ? "primary" : "outline-primary"}
            aria-pressed={m.id === metric}
            onClick={() => setMetric(m.id)}
          >
            {m.name}
          </Button>
        ))}
      </ButtonGroup>
      {practices.map((p) => (
        <Practice key={p.practice} course={p} metric={metric} />
      ))}
      <CheckIns points={check_ins} />
      {never.length > 0 && (
        <p className="text-secondary mt-3">Never taught to this group: {never.join(", ")}.</p>
      )}
    </section>
  );
}

function Practice({ course, metric }: { course: PracticeCourse; metric: Metric }) {
  const last = course.points.at(-1)!;
  return (
    <div className="courseof">
      <div>
        <h3>{course.name}</h3>
        <p className="mb-1">
          last {[last.counts, last.rounds > 0 && plural(last.rounds, "round")].filter(Boolean).join(", ")}
          {last.eased && ", eased"}
        </p>
        {course.next && (
          <p className="mb-0">
            <strong>Next time {text(course.next)}.</strong> {text(course.why)}{" "}
            {course.based_on.map((id) => (
              <Link key={id} className="me-2" to={`/taught/${id}`}>
                {shortDay(course.points.find((p) => p.class_id === id)?.started_ms ?? 0)}
              </Link>
            ))}
          </p>
        )}
      </div>
      <Suspense fallback={<Loading what="Drawing" />}>
        <Plot course={course} metric={metric} />
      </Suspense>
    </div>
  );
}
