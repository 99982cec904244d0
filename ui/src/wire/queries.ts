import { queryOptions } from "@tanstack/react-query";
import { get } from "./api";
import type { Book, Groups, PlansFound, Rehearsals, Running, Session, Settings, Today } from "./contract";

// What several views ask of the application, each with its key. An answer is found, replaced and asked for anew by the same key everywhere.

export const settingsQuery = queryOptions({
  queryKey: ["settings"],
  queryFn: () => get<Settings>("/settings"),
});

export const sessionQuery = queryOptions({ queryKey: ["session"], queryFn: () => get<Session>("/session") });

export const runningQuery = queryOptions({
  queryKey: ["running"],
  queryFn: () => get<Running>("/running"),
  retry: false,
});

export const todayQuery = queryOptions({ queryKey: ["today"], queryFn: () => get<Today>("/today") });

export const groupsQuery = queryOptions({ queryKey: ["groups"], queryFn: () => get<Groups>("/groups") });

export const practicesQuery = (group: number) =>
  queryOptions({ queryKey: ["practices", group], queryFn: () => get<Book>(`/practices?group=${group}`) });

export const rehearsalsQuery = queryOptions({
  queryKey: ["rehearsals"],
  queryFn: () => get<Rehearsals>("/rehearsals"),
});

export const plansFoundQuery = (words: string) =>
  queryOptions({
    queryKey: ["plans-found", words],
    queryFn: () => get<PlansFound>(`/plans?words=${encodeURIComponent(words)}&skip=0`),
  });
