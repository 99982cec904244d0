import type { QueryClient, QueryKey } from "@tanstack/react-query";
import { Failed, get, put } from "./api";
import type { Settings } from "./contract";

/** wasChanged tells whether a save failed because another screen saved first. */
export const wasChanged = (error: unknown): error is Failed =>
  error instanceof Failed && error.problem.changed === true;

/** readAgain is the handler of a save that failed: where another screen saved first, what it saved is read to be compared. */
export function readAgain(queries: QueryClient, queryKey: QueryKey) {
  return (error: Error) => {
    if (wasChanged(error)) void queries.invalidateQueries({ queryKey });
  };
}

/** changeSettings changes one field of the settings and leaves what other screens change in the others. */
export async function changeSettings(part: Partial<Settings>): Promise<Settings> {
  for (let tries = 1; ; tries++) {
    const settings = await get<Settings>("/settings");
    try {
      return await put<Settings>("/settings", { ...settings, ...part });
    } catch (error) {
      if (tries === 5 || !wasChanged(error)) throw error;
    }
  }
}
