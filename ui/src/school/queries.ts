import { queryOptions } from "@tanstack/react-query";
import { heldHere } from "../apart/hold";
import { everythingKept } from "../apart/kept";
import { get } from "../wire/api";
import type { DemoData, ImportProgress } from "../wire/contract";

// What these views ask of the application, each with its key. An answer is found, replaced and asked for anew by the same key everywhere.

export const demoQuery = queryOptions({ queryKey: ["demo"], queryFn: () => get<DemoData>("/demo") });

export const importingQuery = queryOptions({
  queryKey: ["importing"],
  queryFn: () => get<ImportProgress>("/import"),
  gcTime: 0,
});

export const heldHereQuery = queryOptions({
  queryKey: ["held-here"],
  queryFn: heldHere,
  gcTime: 0,
  retry: false,
});

export const keptQuery = queryOptions({
  queryKey: ["kept-here"],
  queryFn: everythingKept,
  gcTime: 0,
  retry: false,
});
