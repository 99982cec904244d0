import { useQuery } from "@tanstack/react-query";
import { Table } from "react-bootstrap";
import { Link } from "react-router";
import { get } from "../shared/api";
import type { ClassCard } from "../shared/contract";
import { Shell, Trouble, Waiting } from "../shared/Shell";
import { clock, day, timeOfDay } from "../shared/words";

/** TaughtView lists the classes that were led. */
export function TaughtView() {
  const classes = useQuery({ queryKey: ["classes"], queryFn: () => get<ClassCard[]>("/classes") });
  return (
    <Shell view="taught">
      <h1>Taught</h1>
      {classes.isPending && <Waiting what="Looking up the classes" />}
      {classes.isError && <Trouble error={classes.error} retry={() => void classes.refetch()} />}
      {classes.data?.length === 0 && (
        <p>
          Nothing was taught yet. A class that is led is recorded by itself. <Link to="/">Go to today</Link>.
        </p>
      )}
      {classes.data && classes.data.length > 0 && (
        <Table hover responsive>
          <thead>
            <tr>
              <th>When</th>
              <th>Class</th>
              <th>Group</th>
              <th>Practices</th>
              <th className="text-end">Length</th>
            </tr>
          </thead>
          <tbody>
            {classes.data.map((c) => (
              <tr key={c.id}>
                <td className="text-nowrap">
                  {day(c.started_ms)}, {timeOfDay(c.started_ms)}
                </td>
                <td>
                  <Link to={c.running ? `/lead/${c.id}` : `/taught/${c.id}`}>{c.title || "Untitled"}</Link>
                  {c.running && " (being led)"}
                </td>
                <td>{c.group?.name}</td>
                <td className="text-secondary">{c.passages.join(" · ")}</td>
                <td className="text-end">{clock(c.length_ms)}</td>
              </tr>
            ))}
          </tbody>
        </Table>
      )}
    </Shell>
  );
}
