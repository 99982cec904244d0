import { type QueryClient, queryOptions } from "@tanstack/react-query";
import { get } from "../wire/api";
import { now } from "../player/clock";
import type { Certificate, Deletion, Plan, Running } from "../wire/contract";

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

/** runningHereQuery is the class that was begun on this device, is in progress, and that the program does not know; null if there is none. */
export const runningHereQuery = queryOptions({
  queryKey: ["running-here"],
  queryFn: async (): Promise<Running | null> => {
    const here = await (await import("../apart/kept")).runningHere(now());
    return here ? { class_id: here.id, title: here.title } : null;
  },
  gcTime: 0,
  retry: false,
});

const holdAfter = 3000; // ms: the page comes first
const holdEvery = 10 * 60_000;

/** holdQuery has this device hold what can be led without the application, as Today was at that moment. */
export const holdQuery = (today: number) =>
  queryOptions({
    queryKey: ["hold", today],
    queryFn: async ({ signal }) => {
      await new Promise((passed) => setTimeout(passed, holdAfter));
      if (signal.aborted) return null;
      const { hold, holds } = await import("../apart/hold");
      if (holds()) await hold();
      return null;
    },
    staleTime: holdEvery,
    refetchInterval: holdEvery,
    retry: false,
  });

const tryAgain = 10_000; // ms until what was pressed apart is sent once more

/** sendKeptQuery sends what was pressed on this device while the program did not answer; what views show is asked for anew then. */
export const sendKeptQuery = (queries: QueryClient) =>
  queryOptions({
    queryKey: ["send-kept"],
    queryFn: async () => {
      const { sent, left } = await (await import("../apart/sendKept")).sendKept();
      if (sent)
        await queries.invalidateQueries({
          predicate: ({ queryKey: [key] }) => key !== "send-kept" && key !== "hold",
        });
      return left;
    },
    refetchInterval: ({ state }) => (state.data ? tryAgain : false),
    refetchOnMount: "always",
    gcTime: 0,
    retry: false,
  });
