import { settingsQuery } from "../../wire/queries";
import heartPulse from "bootstrap-icons/icons/heart-pulse.svg?raw";
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { lazy, Suspense, useState } from "react";
import { Button } from "react-bootstrap";
import { changeSettings } from "../../wire/changed";
import { Icon } from "../shell/Icon";
import { t, text } from "../../language/text";

const GeneralCareCard = lazy(async () => ({ default: (await import("./GeneralCareCard")).GeneralCareCard }));

/** GeneralCare is the caution for everyone: always one step away, and shown once at the first start. */
export function GeneralCare() {
  const queries = useQueryClient();
  const settings = useQuery(settingsQuery);
  const [open, setOpen] = useState(false);
  const read = useMutation({
    mutationFn: () => changeSettings({ care_read: true }),
    onSuccess: (stored) => queries.setQueryData(settingsQuery.queryKey, stored),
  });
  const unread = settings.data?.care_read === false;
  const close = () => {
    setOpen(false);
    if (settings.data && unread) read.mutate();
  };
  return (
    <>
      <Button variant="link" className="quiet" onClick={() => setOpen(true)}>
        <Icon of={heartPulse} /> {t("frame.care")}
      </Button>
      {settings.data && (open || unread) && (
        <Suspense>
          <GeneralCareCard text={text(settings.data.general)} onClose={close} />
        </Suspense>
      )}
    </>
  );
}
