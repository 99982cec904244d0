import { planQuery } from "./queries";
import { todayQuery } from "../wire/queries";
import { useQueryClient } from "@tanstack/react-query";
import { useCallback, useEffect, useState } from "react";
import { put } from "../wire/api";
import type { Plan } from "../wire/contract";
import { Saver, type Saving } from "./saver";
import { forgetUnsaved, keepUnsaved, unsavedOf } from "./unsaved";
import type { Version } from "./version";

/**
 * useSaving saves a plan by itself. found is what an earlier page has left that ended before it was saved; it is saved
 * first.
 */
export function useSaving(plan: Plan) {
  const [found] = useState(() => unsavedOf(plan.id));
  const [saving, setSaving] = useState<Saving>(found ? "saving" : "saved");
  const queries = useQueryClient();
  const [saver] = useState(
    () =>
      new Saver(
        found?.revision ?? plan.revision,
        (revision, { document, group }) =>
          put<Plan>(`/plans/${plan.id}`, { revision, group_id: group, document }),
        setSaving,
        (stored, all) => {
          if (all) forgetUnsaved(plan.id);
          queries.setQueryData(planQuery(plan.id).queryKey, stored);
          void queries.invalidateQueries({ queryKey: todayQuery.queryKey });
        },
      ),
  );

  const keep = useCallback(
    (version: Version) => {
      keepUnsaved(plan.id, { revision: saver.from, version });
      saver.keep(version);
    },
    [plan.id, saver],
  );
  const save = useCallback(() => saver.save(), [saver]);
  const overwrite = useCallback((newest: number) => saver.overwrite(newest), [saver]);

  useEffect(() => {
    if (found) saver.keep(found.version);
  }, [found, saver]);

  // Leaving the view or the page saves what is not saved yet.
  useEffect(() => {
    const now = () => void saver.save();
    window.addEventListener("pagehide", now);
    return () => {
      window.removeEventListener("pagehide", now);
      now();
    };
  }, [saver]);

  return { found, saving, keep, save, overwrite };
}
