import { keepPreviousData, queryOptions } from "@tanstack/react-query";
import { get, post } from "../wire/api";
import type { HomeGive, HomeOffer, HomePreview, HomeRecordings, HomeSheet, Score } from "../wire/contract";

// What these views ask of the application, each with its key. An answer is found, replaced and asked for anew by the same key everywhere.

export const homeScoreQuery = (home: number, step: number) =>
  queryOptions({
    queryKey: ["home-score", home, step],
    queryFn: () => get<Score>(`/homes/${home}/score?step=${step}`),
    gcTime: 0,
  });

/** What would be given from a plan or a class, a HomeGive as JSON, as it is understood. */
export const homePreviewQuery = (path: string, give: string) =>
  queryOptions({
    queryKey: ["home-preview", path, give],
    queryFn: () => post<HomePreview>(`${path}/preview`, JSON.parse(give) as HomeGive),
    placeholderData: keepPreviousData,
    retry: false,
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
