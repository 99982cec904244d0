import { queryOptions } from "@tanstack/react-query";
import { get } from "../wire/api";
import type { RehearsalReview } from "../wire/contract";
import { rehearsalsQuery } from "../wire/queries";

// What these views ask of the application, each with its key. An answer is found, replaced and asked for anew by the same key everywhere.

export const reviewQuery = (id: number) =>
  queryOptions({
    queryKey: [...rehearsalsQuery.queryKey, id],
    queryFn: () => get<RehearsalReview>(`/rehearsals/${id}/review`),
    retry: false,
  });
