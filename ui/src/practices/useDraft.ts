import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { useSettled } from "../frame/editing/useSettled";
import { post } from "../wire/api";
import type { PracticeDrafted } from "../wire/contract";

const pause = 300; // ms without a change after which the practice is read

type Shown = { of: PracticeDrafted; page: PracticeDrafted["page"]; sample: PracticeDrafted["sample"] };

/**
 * useDraft is what the practice means, a moment after each change. Where it cannot be read just now, its page and its sample stay
 * as they were; what is wrong is told when it is saved.
 */
export function useDraft(doc: object): PracticeDrafted | null {
  const text = useSettled(JSON.stringify(doc), pause);
  const { data } = useQuery({
    queryKey: ["drafted", text],
    queryFn: ({ signal }) => post<PracticeDrafted>("/practices/draft", { text }, signal),
    retry: false,
    gcTime: 0,
  });
  const [shown, show] = useState<Shown | null>(null);
  if (data && data !== shown?.of)
    show({ of: data, page: data.page ?? shown?.page ?? null, sample: data.sample ?? shown?.sample ?? null });
  return shown && { ...shown.of, page: shown.page, sample: shown.sample };
}
