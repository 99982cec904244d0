import { todayQuery } from "../wire/queries";
import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { Button, Form } from "react-bootstrap";
import { post } from "../wire/api";
import type { PlanCard } from "../wire/contract";
import { ErrorAlert } from "../frame/shell/ErrorAlert";
import { localInput } from "../player/days";
import { t } from "../language/text";

/** Move chooses another time for a class: a day on or back, or any. */
export function Move({ plan, onDone }: { plan: PlanCard; onDone: () => void }) {
  const [at, setAt] = useState(localInput(plan.starts_ms!));
  const queries = useQueryClient();
  const move = useMutation({
    mutationFn: (starts: number) => post<PlanCard>(`/plans/${plan.id}/move`, { starts_ms: starts }),
    onSuccess: async () => {
      await queries.invalidateQueries({ queryKey: todayQuery.queryKey });
      onDone();
    },
  });
  const by = (count: number) => {
    const day = new Date(plan.starts_ms!);
    day.setDate(day.getDate() + count); // the same time of the day, also where the clocks change
    move.mutate(day.getTime());
  };
  const chosen = new Date(at).getTime();
  return (
    <Form
      className="move"
      onSubmit={(e) => {
        e.preventDefault();
        if (!Number.isNaN(chosen)) move.mutate(chosen);
      }}
    >
      <span>
        <Button size="sm" variant="outline-secondary" disabled={move.isPending} onClick={() => by(-1)}>
          {t("today.a-day-back")}
        </Button>{" "}
        <Button size="sm" variant="outline-secondary" disabled={move.isPending} onClick={() => by(1)}>
          {t("today.a-day")}
        </Button>
      </span>
      <Form.Control
        size="sm"
        type="datetime-local"
        aria-label={t("today.new-time", { title: plan.title })}
        value={at}
        onChange={(e) => setAt(e.target.value)}
      />
      <Button size="sm" type="submit" disabled={move.isPending || Number.isNaN(chosen)}>
        {t("today.move-it-there")}
      </Button>
      {move.isError && <ErrorAlert error={move.error} />}
    </Form>
  );
}
