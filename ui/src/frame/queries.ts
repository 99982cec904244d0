import { queryOptions } from "@tanstack/react-query";
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
