import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { Button } from "react-bootstrap";
import { Message } from "../shell/Message";
import { get, post } from "../../wire/api";
import type { Deleted, DeletedList } from "../../wire/contract";
import { day, shortDay } from "../../player/format";
import { allDeleted, justDeleted, type Kind } from "./deleting";
import { ErrorAlert } from "../shell/ErrorAlert";
import { failureText, t } from "../../language/text";

function useBringBack() {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: (one: Deleted) => post<DeletedList>(`/deleted/${one.kind}/${one.id}/back`, {}),
    onSuccess: async () => {
      queries.setQueryData(justDeleted, null);
      await queries.invalidateQueries();
    },
  });
}

/** JustDeleted offers to take back what was deleted last, until it is put away. */
export function JustDeleted() {
  const queries = useQueryClient();
  const just = useQuery<Deleted | null>({ queryKey: justDeleted, queryFn: () => null, staleTime: Infinity });
  const back = useBringBack();
  if (!just.data) return null;
  const one = just.data;
  return (
    <Message variant="light" className="d-flex gap-3 align-items-center">
      <span role="status">{t("frame.was-deleted", { one: named(one) })}</span>
      <Button size="sm" variant="outline-primary" disabled={back.isPending} onClick={() => back.mutate(one)}>
        {t("frame.restore")}
      </Button>
      {back.isError && <span className="text-danger">{failureText(back.error)}</span>}
      <Button
        size="sm"
        variant="link"
        className="ms-auto"
        onClick={() => queries.setQueryData(justDeleted, null)}
      >
        {t("frame.dismiss")}
      </Button>
    </Message>
  );
}

/** DeletedLately is what of some kinds can still be brought back. */
export function DeletedLately({ kinds }: { kinds: Kind[] }) {
  const deleted = useQuery({ queryKey: allDeleted, queryFn: () => get<DeletedList>("/deleted") });
  const back = useBringBack();
  const mine = deleted.data?.deleted.filter((one) => kinds.includes(one.kind as Kind)) ?? [];
  if (mine.length === 0) return null;
  return (
    <details className="mt-4">
      <summary>{t("frame.recently-deleted", { mine: mine.length })}</summary>
      {back.isError && <ErrorAlert error={back.error} />}
      <ul className="list-unstyled mt-2">
        {mine.map((one) => (
          <li key={`${one.kind}${one.id}`} className="d-flex gap-3 align-items-center mb-2">
            <span>
              {named(one)}
              <small className="text-secondary"> {t("frame.until", { until: shortDay(one.until_ms) })}</small>
            </span>
            <Button
              size="sm"
              variant="outline-primary"
              disabled={back.isPending}
              onClick={() => back.mutate(one)}
            >
              {t("frame.restore")}
            </Button>
          </li>
        ))}
      </ul>
    </details>
  );
}

function named(one: Deleted): string {
  const name = one.name || t("frame.untitled");
  return one.started_ms > 0 ? t("frame.of-2", { name, started: day(one.started_ms) }) : name;
}
