import { queryOptions } from "@tanstack/react-query";
import { get } from "../wire/api";
import type { Record, Summary } from "../wire/contract";

// What these views ask of the application, each with its key. An answer is found, replaced and asked for anew by the same key everywhere.

export const recordQuery = (id: number) =>
  queryOptions({ queryKey: ["record", id], queryFn: () => get<Record>(`/classes/${id}/record`) });

export const summaryQuery = (year: number) =>
  queryOptions({ queryKey: ["summary", year], queryFn: () => get<Summary>(`/summary?year=${year}`) });
