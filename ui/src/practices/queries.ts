import { queryOptions } from "@tanstack/react-query";
import { get } from "../wire/api";
import type { PracticeFile, Score } from "../wire/contract";

// What these views ask of the application, each with its key. An answer is found, replaced and asked for anew by the same key everywhere.

export const sampleQuery = (practice: string) =>
  queryOptions({
    queryKey: ["sample", practice],
    queryFn: () => get<Score>(`/practices/${practice}/sample`),
  });

export const practiceFileQuery = (id: string) =>
  queryOptions({
    queryKey: ["practice-file", id],
    queryFn: () => get<PracticeFile>(`/practices/${id}/file`),
    gcTime: 0,
  });
