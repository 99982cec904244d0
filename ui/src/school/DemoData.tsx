import { demoQuery } from "./queries";
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { Button } from "react-bootstrap";
import { post, remove } from "../wire/api";
import type { DemoData as Demo } from "../wire/contract";
import { ErrorAlert } from "../frame/shell/ErrorAlert";

/** DemoData lays invented groups with a few weeks of classes beside one's own, to look around in, and takes them out again. */
export function DemoData() {
  const queries = useQueryClient();
  const demo = useQuery(demoQuery);
  const change = useMutation({
    mutationFn: (lay: boolean) => (lay ? post<Demo>("/demo", {}) : remove<Demo>("/demo")),
    onSuccess: async (state) => {
      await queries.invalidateQueries();
      queries.setQueryData(demoQuery.queryKey, state);
    },
  });
  const there = demo.data?.groups ?? [];
  return (
    <section aria-label="Demo data">
      <h2 className="mt-4">Demo data</h2>
      <p>
        Invented groups with plans for the next days and a few weeks of taught classes:{" "}
        {(demo.data?.offered ?? []).join("; ")}. They stand beside your own, and go again with all that is
        theirs.
      </p>
      {there.length === 0 ? (
        <Button
          variant="outline-primary"
          disabled={change.isPending || !demo.data}
          onClick={() => change.mutate(true)}
        >
          {change.isPending ? "Adding the demo data …" : "Add the demo data"}
        </Button>
      ) : (
        <Button variant="outline-danger" disabled={change.isPending} onClick={() => change.mutate(false)}>
          {change.isPending ? "Removing …" : `Remove the demo data: ${there.length} groups`}
        </Button>
      )}
      {demo.isError && <ErrorAlert error={demo.error} />}
      {change.isError && <ErrorAlert error={change.error} />}
    </section>
  );
}
