import { queryOptions } from "@tanstack/react-query";
import { get } from "../wire/api";
import type { RehearsalReview, Rehearsals } from "../wire/contract";

// What these views ask of the application, each with its key. An answer is found, replaced and asked for anew by the same key everywhere.

export const reviewQuery = (id: number) =>
  queryOptions({
    queryKey: ["rehearsals", id],
    queryFn: () => get<RehearsalReview>(`/rehearsals/${id}/review`),
    retry: false,
  });

export const rehearsalsQuery = queryOptions({
  queryKey: ["rehearsals"],
  queryFn: () => get<Rehearsals>("/rehearsals"),
});
