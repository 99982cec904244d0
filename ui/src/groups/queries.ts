import { queryOptions } from "@tanstack/react-query";
import { get } from "../wire/api";
import type { GroupCourse, ProgrammeCard } from "../wire/contract";

// What these views ask of the application, each with its key. An answer is found, replaced and asked for anew by the same key everywhere.

export const courseQuery = (group: number) =>
  queryOptions({
    queryKey: ["course of", group],
    queryFn: () => get<GroupCourse>(`/groups/${group}/course`),
  });

export const programmesQuery = (group: number) =>
  queryOptions({
    queryKey: ["programmes of", group],
    queryFn: () => get<ProgrammeCard[]>(`/groups/${group}/programmes`),
  });
