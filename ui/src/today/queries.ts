import { queryOptions } from "@tanstack/react-query";
import { get } from "../wire/api";
import type { Template } from "../wire/contract";

// What these views ask of the application, each with its key. An answer is found, replaced and asked for anew by the same key everywhere.

export const templatesQuery = queryOptions({
  queryKey: ["templates"],
  queryFn: () => get<Template[]>("/templates"),
  staleTime: Infinity,
});
