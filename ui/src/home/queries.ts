import { queryOptions } from "@tanstack/react-query";
import { get } from "../wire/api";
import type { HomeOffer, HomeRecordings, HomeSheet, Score } from "../wire/contract";

// What these views ask of the application, each with its key. An answer is found, replaced and asked for anew by the same key everywhere.

export const homeScoreQuery = (home: number) =>
  queryOptions({
    queryKey: ["home-score", home],
    queryFn: () => get<Score>(`/homes/${home}/score`),
    gcTime: 0,
  });

export const homeRecordingsQuery = (home: number) =>
  queryOptions({
    queryKey: ["home-recordings", home],
    queryFn: () => get<HomeRecordings>(`/homes/${home}/recordings`),
    gcTime: 0,
  });

export const homeOfferQuery = (path: string) =>
  queryOptions({ queryKey: ["home", path], queryFn: () => get<HomeOffer>(path), gcTime: 0 });

export const homeSheetQuery = (id: number) =>
  queryOptions({ queryKey: ["home-sheet", id], queryFn: () => get<HomeSheet>(`/homes/${id}`), gcTime: 0 });
