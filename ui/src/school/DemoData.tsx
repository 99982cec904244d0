import { demoQuery } from "./queries";
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { Button } from "react-bootstrap";
import { post, remove } from "../wire/api";
import type { DemoData as Demo } from "../wire/contract";
import { ErrorAlert } from "../frame/shell/ErrorAlert";
import { t } from "../language/text";

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
    <section aria-label={t("school.demo-data")}>
      <h2 className="mt-4">{t("school.demo-data")}</h2>
      {demo.data && <p>{t("school.invented-groups-with-plans", { value: demo.data.offered.join("; ") })}</p>}
      {there.length === 0 ? (
        <Button
          variant="outline-primary"
          disabled={change.isPending || !demo.data}
          onClick={() => change.mutate(true)}
        >
          {change.isPending ? t("school.adding-the-demo-data") : t("school.add-the-demo-data")}
        </Button>
      ) : (
        <Button variant="outline-danger" disabled={change.isPending} onClick={() => change.mutate(false)}>
          {change.isPending
            ? t("school.removing")
            : t("school.remove-the-demo-data-groups", { there: there.length })}
        </Button>
      )}
      {demo.isError && <ErrorAlert error={demo.error} />}
      {change.isError && <ErrorAlert error={change.error} />}
    </section>
  );
}
