import { courseQuery } from "./queries";
import { useQuery } from "@tanstack/react-query";
import { lazy, Suspense, useState } from "react";
import { Button, ButtonGroup } from "react-bootstrap";
import { Link } from "react-router";
import type { PracticeCourse } from "../wire/contract";
import { ErrorAlert } from "../frame/shell/ErrorAlert";
import { Loading } from "../frame/shell/Loading";
import { shortDay } from "../player/format";
import { type Metric, metrics } from "./metrics";
import { t, text } from "../language/text";
import { CheckIns } from "./CheckIns";

const Plot = lazy(() => import("./Plot")); // the library that draws it is large, and most views do not need it

/** CourseOf is what a group was taught over the weeks, and what next time, with what it rests on. */
export function CourseOf({ group }: { group: number }) {
  const [metric, setMetric] = useState<Metric>("rounds");
  const course = useQuery(courseQuery(group));
  if (course.isPending) return <Loading what={t("groups.loading-the-course")} />;
  if (course.isError) return <ErrorAlert error={course.error} retry={() => void course.refetch()} />;
  const { practices, classes, streak, never, check_ins } = course.data;
  if (classes === 0) return <p className="text-secondary">{t("groups.this-group-has-not-been-taught")}</p>;
  return (
    <section aria-label={t("frame.course")}>
      <p className="text-secondary">{t("groups.classes", { classes, streak })}</p>
      <ButtonGroup size="sm" className="mb-2 flex-wrap" aria-label={t("groups.what-is-plotted")}>
        {metrics.map((m) => (
          <Button
            key={m.id}
            variant={m.id === metric ? "primary" : "outline-primary"}
            aria-pressed={m.id === metric}
            onClick={() => setMetric(m.id)}
          >
            {t(m.name)}
          </Button>
        ))}
      </ButtonGroup>
      {practices.map((p) => (
        <Practice key={p.practice} course={p} metric={metric} />
      ))}
      <CheckIns points={check_ins} />
      {never.length > 0 && (
        <p className="text-secondary mt-3">
          {t("groups.never-taught-to-this-group", { value: never.join(", ") })}
        </p>
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
          {t("groups.last", {
            value: [last.counts, last.rounds > 0 && t("groups.rounds", { rounds: last.rounds })]
              .filter(Boolean)
              .join(", "),
          })}
          {last.eased && t("groups.eased")}
        </p>
        {course.next && (
          <p className="mb-0">
            <strong>{t("groups.next-time", { next: text(course.next) })}</strong> {text(course.why)}{" "}
            {course.based_on.map((id) => (
              <Link key={id} className="me-2" to={`/taught/${id}`}>
                {shortDay(course.points.find((p) => p.class_id === id)?.started_ms ?? 0)}
              </Link>
            ))}
          </p>
        )}
      </div>
      <Suspense fallback={<Loading what={t("frame.drawing")} />}>
        <Plot course={course} metric={metric} />
      </Suspense>
    </div>
  );
}
