import { queryOptions } from "@tanstack/react-query";
import { get } from "../wire/api";
import type { Away } from "./desk";
import type { Rehearsing, RoomCode, Signal } from "../wire/contract";

// What these views ask of the application, each with its key. An answer is found, replaced and asked for anew by the same key everywhere.

export const rehearsingQuery = (id: number) =>
  queryOptions({
    queryKey: ["rehearsing", id],
    queryFn: () => get<Rehearsing>(`/rehearsals/${id}`),
    staleTime: Infinity,
    gcTime: 0,
  });

export const signalsQuery = queryOptions({
  queryKey: ["signals"],
  queryFn: () => get<Signal[]>("/signals"),
  staleTime: Infinity,
});

/** The microphones of this device; they have names once one may be used. */
export const microphonesQuery = queryOptions({
  queryKey: ["microphones"],
  queryFn: async () =>
    (await navigator.mediaDevices.enumerateDevices()).filter(
      (one) => one.kind === "audioinput" && one.deviceId !== "" && one.deviceId !== "default",
    ),
  gcTime: 0,
});

export const roomCodeQuery = queryOptions({ queryKey: ["roomcode"], queryFn: () => get<RoomCode>("/room") });

export const gapQuery = (id: number, from: number, away: Away) =>
  queryOptions({
    queryKey: ["gap", id, from],
    queryFn: () => away.gap(from),
    gcTime: 0,
  });
