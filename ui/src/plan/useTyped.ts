import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { useSettled } from "../frame/editing/useSettled";
import { post } from "../wire/api";
import type { TypedRead } from "../wire/contract";

const pause = 100; // ms without a letter after which the lines are read

/** useTyped is what typed lines would be, as the application reads them; of the text as it was a moment ago. */
export function useTyped(text: string, group: number): TypedRead | undefined {
  const asked = useSettled(text, pause);
  const typed = useQuery({
    queryKey: ["typed", asked, group],
    queryFn: () => post<TypedRead>("/typed", { text: asked, group_id: group }),
    enabled: asked.trim() !== "",
    placeholderData: keepPreviousData,
    staleTime: 60_000,
  });
  return text.trim() === "" ? undefined : typed.data;
}
