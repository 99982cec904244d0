import { useInfiniteQuery } from "@tanstack/react-query";
import { useDeferredValue, useState } from "react";
import { Button, Form } from "react-bootstrap";
import { ErrorAlert } from "../frame/shell/ErrorAlert";
import { Loading } from "../frame/shell/Loading";
import { plural } from "../player/format";
import { get } from "../wire/api";
import type { PlansFound } from "../wire/contract";
import { PlanLinks } from "./PlanLinks";

/** FindPlan looks among all plans by their titles, where there are more than Today lists. */
export function FindPlan({ more, now }: { more: number; now: number }) {
  const [typed, setTyped] = useState("");
  const words = useDeferredValue(typed.trim());
  const found = useInfiniteQuery({
    queryKey: ["plans", words],
    queryFn: ({ pageParam }) =>
      get<PlansFound>(`/plans?words=${encodeURIComponent(words)}&skip=${pageParam}`),
    initialPageParam: 0,
    getNextPageParam: (last, pages) =>
      last.more ? pages.reduce((sum, page) => sum + page.plans.length, 0) : undefined,
    enabled: words !== "",
  });
  const plans = found.data?.pages.flatMap((page) => page.plans) ?? [];
  return (
    <section className="mb-3" aria-label="Find a plan">
      <Form.Control
        type="search"
        aria-label="Find a plan by its title"
        placeholder={`${plural(more, "more plan")}: type a word of the title`}
        value={typed}
        onChange={(e) => setTyped(e.target.value)}
      />
      {words !== "" && (
        <div className="mt-2">
          {found.isPending && <Loading what="Looking for plans" />}
          {found.isError && <ErrorAlert error={found.error} retry={() => void found.refetch()} />}
          {found.isSuccess && plans.length === 0 && (
            <p className="text-secondary">No plan has “{words}” in its title.</p>
          )}
          <PlanLinks plans={plans} now={now} />
          {found.hasNextPage && (
            <Button
              variant="link"
              disabled={found.isFetchingNextPage}
              onClick={() => void found.fetchNextPage()}
            >
              Show more
            </Button>
          )}
        </div>
      )}
    </section>
  );
}
