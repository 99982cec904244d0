import { useQuery, useQueryClient } from "@tanstack/react-query";
import { sendKeptQuery } from "../queries";

/** useSendKept sends what was pressed on this device while the program did not answer; views read anew what changed by it. */
export function useSendKept(): void {
  const queries = useQueryClient();
  useQuery(sendKeptQuery(queries));
}
