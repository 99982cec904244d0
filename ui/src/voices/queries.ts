import { queryOptions } from "@tanstack/react-query";
import { get } from "../wire/api";
import type { VoiceSheet, Voices } from "../wire/contract";

// What these views ask of the application, each with its key. An answer is found, replaced and asked for anew by the same key everywhere.

export const voicesQuery = queryOptions({
  queryKey: ["voices"],
  queryFn: () => get<Voices>("/voices"),
  gcTime: 0,
});

export const voiceQuery = (id: number) =>
  queryOptions({ queryKey: ["voice", id], queryFn: () => get<VoiceSheet>(`/voices/${id}`), gcTime: 0 });
