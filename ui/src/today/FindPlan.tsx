import { useInfiniteQuery } from "@tanstack/react-query";
import { useDeferredValue, useState } from "react";
import { Button, Form } from "react-bootstrap";
import { ErrorAlert } from "../frame/shell/ErrorAlert";
import { Loading } from "../frame/shell/Loading";
import { get } from "../wire/api";
import type { PlansFound } from "../wire/contract";
import { PlanLinks } from "./PlanLinks";
import { t } from "../language/text";

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
    <section className="mb-3" aria-label={t("today.find-a-plan")}>
      <Form.Control
        type="search"
        aria-label={t("frame.find-a-plan-by-its-title")}
        placeholder={t("today.type-a-word-of-the-title", { more })}
        value={typed}
        onChange={(e) => setTyped(e.target.value)}
      />
      {words !== "" && (
        <div className="mt-2">
          {found.isPending && <Loading what={t("frame.looking-for-plans")} />}
          {found.isError && <ErrorAlert error={found.error} retry={() => void found.refetch()} />}
          {found.isSuccess && plans.length === 0 && (
            <p className="text-secondary">{t("today.no-plan-has-in-its-title", { words })}</p>
          )}
          <PlanLinks plans={plans} now={now} />
          {found.hasNextPage && (
            <Button
              variant="link"
              disabled={found.isFetchingNextPage}
              onClick={() => void found.fetchNextPage()}
            >
              {t("today.show-more")}
            </Button>
          )}
        </div>
      )}
    </section>
  );
}
