import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { Alert, Button } from "react-bootstrap";
import { removeHeld } from "../apart/hold";
import { removeEverything } from "../apart/kept";
import { ErrorAlert } from "../frame/shell/ErrorAlert";
import { day, timeOfDay } from "../player/format";
import { t } from "../language/text";
import { HeldHere } from "./HeldHere";
import { heldHereQuery, keptQuery } from "./queries";

/** KeptHere lists what is kept on this device, so that classes are led without the server, and removes it. */
export function KeptHere() {
  const queries = useQueryClient();
  const kept = useQuery(keptQuery);
  const held = useQuery(heldHereQuery);
  const [asked, setAsked] = useState(false);
  const removal = useMutation({
    mutationFn: () => Promise.all([removeEverything(), removeHeld()]),
    onSuccess: () => {
      setAsked(false);
      return Promise.all(
        [keptQuery, heldHereQuery].map(({ queryKey }) => queries.invalidateQueries({ queryKey })),
      );
    },
  });
  const classes = kept.data ?? [];
  const unsent = classes.reduce((sum, one) => sum + one.unsent, 0);
  return (
    <section aria-labelledby="kept-here">
      <h2 className="mt-4" id="kept-here">
        {t("school.kept-on-this-device")}
      </h2>
      <p>{t("school.what-is-kept")}</p>
      {kept.isError && <p className="text-secondary">{t("school.cannot-keep")}</p>}
      {kept.isSuccess && classes.length === 0 && (
        <p className="text-secondary">{t("school.nothing-is-kept")}</p>
      )}
      {classes.length > 0 && (
        <ul>
          {classes.map((one) => (
            <li key={one.startedMS}>
              {t("school.kept-class", {
                title: one.title,
                day: `${day(one.startedMS)} ${timeOfDay(one.startedMS)}`,
                group: one.group || "none",
                unsent: one.unsent,
              })}
            </li>
          ))}
        </ul>
      )}
      <HeldHere />
      {(classes.length > 0 || held.data) && (
        <Button
          variant="outline-secondary"
          disabled={removal.isPending}
          onClick={() => (unsent > 0 ? setAsked(true) : removal.mutate())}
        >
          {t("school.remove-what-is-kept")}
        </Button>
      )}
      {asked && unsent > 0 && (
        <Alert variant="warning" className="mt-3">
          <p>{t("school.unsent-is-lost", { unsent })}</p>
          <Button variant="outline-danger" size="sm" onClick={() => removal.mutate()}>
            {t("school.remove-all-the-same")}
          </Button>
        </Alert>
      )}
      {removal.isError && <ErrorAlert error={removal.error} />}
    </section>
  );
}
