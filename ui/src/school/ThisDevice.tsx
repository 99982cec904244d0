import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { Alert, Button } from "react-bootstrap";
import { removeHeld } from "../apart/hold";
import { everythingKept, removeEverything } from "../apart/kept";
import { ErrorAlert } from "../frame/shell/ErrorAlert";
import { remove } from "../wire/api";
import type { Session } from "../wire/contract";
import { sessionQuery } from "../wire/queries";
import { rich, t } from "../language/text";

/**
 * ThisDevice tells how this device is signed in, where anybody has to. Signing out removes what is kept here; where the
 * program does not have all of it, the teacher is asked first.
 */
export function ThisDevice() {
  const queries = useQueryClient();
  const session = useQuery(sessionQuery);
  const leave = useMutation({
    mutationFn: async (allTheSame: boolean) => {
      const kept = await everythingKept().catch(() => []); // a browser that cannot keep anything has nothing to remove
      const unsent = kept.reduce((sum, one) => sum + one.unsent, 0);
      if (unsent > 0 && !allTheSame) return { unsent };
      const left = await remove<Session>("/session");
      await Promise.allSettled([removeEverything(), removeHeld()]);
      return { left };
    },
    onSuccess: ({ left }) => left && queries.setQueryData(sessionQuery.queryKey, left),
  });
  if (!session.data?.needed) return null;
  const unsent = leave.data?.unsent ?? 0;
  return (
    <>
      <p>
        {rich("school.this-device-is-signed", { strong: <strong>{session.data.device}</strong> })}{" "}
        <Button
          variant="outline-secondary"
          size="sm"
          disabled={leave.isPending}
          onClick={() => leave.mutate(false)}
        >
          {t("school.sign-out")}
        </Button>
      </p>
      {unsent > 0 && (
        <Alert variant="warning">
          <p>{t("school.unsent-is-lost", { unsent })}</p>
          <Button variant="outline-danger" size="sm" onClick={() => leave.mutate(true)}>
            {t("school.sign-out-all-the-same")}
          </Button>
        </Alert>
      )}
      {leave.isError && <ErrorAlert error={leave.error} />}
    </>
  );
}
