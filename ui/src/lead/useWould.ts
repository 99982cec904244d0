import { keepPreviousData, useQuery } from "@tanstack/react-query";
import type { Preview, Score } from "../wire/contract";
import type { Place } from "../player/usePlace";
import type { Control } from "./adjustments";
import type { Asks } from "./desk";

/**
 * useWould is what each control would do if it were pressed in the phase in progress, by its id. Until the first answer is
 * there, and without a connection, there is none: the keys work all the same. For the moment that an answer takes, what was
 * there before stays, so that the keys do not flicker; it is settled when the answer is there.
 */
export function useWould(
  score: Score,
  place: Place,
  controls: Control[],
  asks: Asks | undefined,
): { previews: Map<string, Preview>; settled: boolean } {
  const met = controls.filter((control) => control.met);
  const would = useQuery({
    queryKey: ["would", score.class_id, score.revision, place.phase?.at_ms[0], met.map((c) => c.id).join()],
    queryFn: async () => {
      const presses = met.map((control) => control.press);
      const previews = await asks!.would(presses);
      return new Map(met.map((control, i) => [control.id, previews[i]!]));
    },
    enabled: asks !== undefined && met.length > 0,
    refetchInterval: place.phase && place.phase.end_ms < 0 ? 2000 : false, // what waits beyond its plan moves the end
    placeholderData: keepPreviousData,
    staleTime: Infinity,
    gcTime: 0,
    retry: false,
  });
  // What can be taken back may be past with the next count: it is asked for with each, as long as there is something.
  const undo = controls.find((control) => control.id === "undo");
  const mayUndo = would.data?.get("undo")?.answer.refused === null;
  const undone = useQuery({
    queryKey: ["undo", score.class_id, score.revision, place.phase?.at_ms[0], place.count],
    queryFn: async () => (await asks!.would([undo!.press]))[0]!,
    enabled: asks !== undefined && mayUndo && undo !== undefined,
    staleTime: Infinity,
    gcTime: 0,
    retry: false,
  });
  const all = would.data ?? new Map<string, Preview>();
  const previews = undone.data ? new Map(all).set("undo", undone.data) : all;
  return { previews, settled: !would.isPlaceholderData };
}
