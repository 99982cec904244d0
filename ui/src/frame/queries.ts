import { type QueryClient, queryOptions } from "@tanstack/react-query";
import { get } from "../wire/api";
import type { Certificate, Deletion, Plan } from "../wire/contract";

// What these views ask of the application, each with its key. An answer is found, replaced and asked for anew by the same key everywhere.

export const deletionQuery = (path: string) =>
  queryOptions({ queryKey: ["deletion", path], queryFn: () => get<Deletion>(`${path}/deletion`), gcTime: 0 });

export const beforeLeadingQuery = (plan: number) =>
  queryOptions({ queryKey: ["before", plan], queryFn: () => get<Plan>(`/plans/${plan}`), gcTime: 0 });

export const certificateQuery = queryOptions({
  queryKey: ["certificate"],
  queryFn: () => get<Certificate>("/certificate"),
  retry: false,
});

const tryAgain = 10_000; // ms until what was pressed apart is sent once more

/** sendKeptQuery sends what was pressed on this device while the program did not answer; what views show is asked for anew then. */
export const sendKeptQuery = (queries: QueryClient) =>
  queryOptions({
    queryKey: ["send-kept"],
    queryFn: async () => {
      const { sent, left } = await (await import("../apart/sendKept")).sendKept();
      if (sent) await queries.invalidateQueries({ predicate: ({ queryKey }) => queryKey[0] !== "send-kept" });
      return left;
    },
    refetchInterval: ({ state }) => (state.data ? tryAgain : false),
    refetchOnMount: "always",
    gcTime: 0,
    retry: false,
  });
