import { queryOptions } from "@tanstack/react-query";
import { get } from "../wire/api";
import type { ProgrammeSheet } from "../wire/contract";

// What these views ask of the application, each with its key. An answer is found, replaced and asked for anew by the same key everywhere.

export const programmeQuery = (id: number) =>
  queryOptions({
    queryKey: ["programme", id],
    queryFn: () => get<ProgrammeSheet>(`/programmes/${id}`),
    gcTime: 0,
  });
