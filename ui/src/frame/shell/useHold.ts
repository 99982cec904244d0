import { useQuery } from "@tanstack/react-query";
import { todayQuery } from "../../wire/queries";
import { holdQuery } from "../queries";

/** useHold has this device hold what can be led today, once the page is drawn, and again when Today has changed. */
export function useHold(): void {
  const { dataUpdatedAt } = useQuery({ ...todayQuery, enabled: false });
  useQuery(holdQuery(dataUpdatedAt));
}
