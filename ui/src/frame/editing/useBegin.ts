import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useNavigate } from "react-router";
import { post } from "../../wire/api";
import type { Begin, Plan } from "../../wire/contract";
import { todayQuery } from "../../wire/queries";
import { t } from "../../language/text";

/** useBegin makes a new plan and opens it. */
export function useBegin() {
  const navigate = useNavigate();
  const queries = useQueryClient();
  return useMutation({
    mutationFn: (from: Begin | null) =>
      from
        ? post<Plan>("/plans/begin", from)
        : post<Plan>("/plans", {
            group_id: 0,
            document: { format: "vast-lantern-plan", version: 1, title: t("frame.new-class"), passages: [] },
          }),
    onSuccess: (plan) => {
      void queries.invalidateQueries({ queryKey: todayQuery.queryKey });
      void navigate(`/plan/${plan.id}`);
    },
  });
}
