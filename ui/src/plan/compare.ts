import type { LastPassage } from "../wire/contract";

/** Passage is what of a planned passage is held against the last class. */
export type Planned = Pick<LastPassage, "name" | "practice" | "short" | "says">;

export type Row = { then: LastPassage | null; now: Planned | null };

const same = (a: Planned, b: Planned) =>
  a.practice === b.practice && (a.practice !== "" || a.name === b.name);
const alike = (a: Planned, b: Planned) => a.short === b.short && a.says.join() === b.says.join();

/** unchanged tells whether a passage is planned as it was taught. */
export const unchanged = ({ then, now }: Row) => then !== null && now !== null && alike(then, now);

/**
 * beside lays the passages of the last class beside those that are planned, in order: as many as can be stand beside their like,
 * the others beside nothing.
 */
export function beside(last: LastPassage[], planned: Planned[]): Row[] {
  // The longest common subsequence; what is the same to the letter weighs a little more.
  const best: number[][] = Array.from({ length: last.length + 1 }, () =>
    Array<number>(planned.length + 1).fill(0),
  );
  const worth = (i: number, j: number) =>
    same(last[i]!, planned[j]!) ? 1 + (alike(last[i]!, planned[j]!) ? 0.01 : 0) : 0;
  for (let i = last.length - 1; i >= 0; i--)
    for (let j = planned.length - 1; j >= 0; j--) {
      const pair = worth(i, j) > 0 ? best[i + 1]![j + 1]! + worth(i, j) : 0;
      best[i]![j] = Math.max(pair, best[i + 1]![j]!, best[i]![j + 1]!);
    }
  const rows: Row[] = [];
  let i = 0;
  let j = 0;
  while (i < last.length || j < planned.length) {
    const pair = i < last.length && j < planned.length ? worth(i, j) : 0;
    if (pair > 0 && best[i]![j] === best[i + 1]![j + 1]! + pair)
      rows.push({ then: last[i++]!, now: planned[j++]! });
    else if (j >= planned.length || (i < last.length && best[i]![j] === best[i + 1]![j]!))
      rows.push({ then: last[i++]!, now: null });
    else rows.push({ then: null, now: planned[j++]! });
  }
  return rows;
}
