import { queryOptions } from "@tanstack/react-query";
import { get } from "../wire/api";
import type { LastTime, Phrases, PlainText, Plan, ProgrammeOfPlan, ProgrammeOffer } from "../wire/contract";

// What these views ask of the application, each with its key. An answer is found, replaced and asked for anew by the same key everywhere.

export const savedElsewhereQuery = (id: number) =>
  queryOptions({
    queryKey: ["plan", id, "saved elsewhere"],
    queryFn: () => get<Plan>(`/plans/${id}`),
    gcTime: 0,
    staleTime: 0,
  });

export const programmeOfPlanQuery = (id: number) =>
  queryOptions({
    queryKey: ["programme of", id],
    queryFn: () => get<ProgrammeOfPlan>(`/plans/${id}/programme`),
  });

export const planTextQuery = (id: number) =>
  queryOptions({ queryKey: ["text", id], queryFn: () => get<PlainText>(`/plans/${id}/text`), gcTime: 0 });

export const phrasesQuery = (practice: string) =>
  queryOptions({
    queryKey: ["phrases", practice],
    queryFn: () => get<Phrases>(`/phrases?practice=${encodeURIComponent(practice)}`),
  });

export const lastTimeQuery = (group: number) =>
  queryOptions({ queryKey: ["last", group], queryFn: () => get<LastTime>(`/groups/${group}/last`) });

export const printedPlanQuery = (id: number) =>
  queryOptions({ queryKey: ["paper", id], queryFn: () => get<Plan>(`/plans/${id}`), gcTime: 0 });

export const planQuery = (id: number) =>
  queryOptions({ queryKey: ["plan", id], queryFn: () => get<Plan>(`/plans/${id}`) });

export const programmeOfferQuery = (id: number) =>
  queryOptions({
    queryKey: ["programme offer", id],
    queryFn: () => get<ProgrammeOffer>(`/plans/${id}/programme/offer`),
    gcTime: 0,
  });
