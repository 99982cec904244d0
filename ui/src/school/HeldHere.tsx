import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { Form } from "react-bootstrap";
import { canHold, holds, switchHolding } from "../apart/hold";
import { ErrorAlert } from "../frame/shell/ErrorAlert";
import { Loading } from "../frame/shell/Loading";
import { day, timeOfDay } from "../player/format";
import { t } from "../language/text";
import { heldHereQuery } from "./queries";

/** HeldHere tells what this device holds so that a class can be begun without the server, and switches that off. */
export function HeldHere() {
  const queries = useQueryClient();
  const held = useQuery(heldHereQuery);
  const [on, setOn] = useState(holds);
  const change = useMutation({
    mutationFn: switchHolding,
    onSettled: () => {
      setOn(holds());
      return queries.invalidateQueries({ queryKey: heldHereQuery.queryKey });
    },
  });
  if (!canHold()) return <p className="text-secondary">{t("school.cannot-hold")}</p>;
  return (
    <>
      <Form.Check
        type="switch"
        id="holds"
        label={t("school.holds")}
        checked={change.isPending ? change.variables : on}
        disabled={change.isPending}
        onChange={(e) => change.mutate(e.target.checked)}
      />
      {change.isPending && <Loading what={t("school.being-held")} />}
      {change.isError && <ErrorAlert error={change.error} />}
      <p className="text-secondary">
        {held.data
          ? t("school.held", {
              when: `${day(held.data.at)} ${timeOfDay(held.data.at)}`,
              plans: held.data.held.plans.length,
              names: held.data.held.plans.join(", "),
              groups: held.data.held.groups,
            })
          : on
            ? t("school.not-held-yet")
            : t("school.not-held")}
      </p>
    </>
  );
}
