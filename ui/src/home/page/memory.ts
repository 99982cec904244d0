/** Marks is what this device remembers of one day. */
export type Marks = { done?: boolean; evening?: boolean; tooMuch?: boolean };

/** Memory is what this device remembers, by calendar day. Nothing of it leaves the device. */
export type Memory = { [day: string]: Marks };

const place = (key: string) => `home-practice:${key}`;

/** recall is what the device remembers under a key; null where the browser keeps nothing of a page. */
export function recall(key: string): Memory | null {
  try {
    const kept: unknown = JSON.parse(localStorage.getItem(place(key)) ?? "{}");
    // Some browsers read of a file and do not write: only a page that can do both remembers.
    localStorage.setItem(place(key), JSON.stringify(kept));
    return typeof kept === "object" && kept !== null ? (kept as Memory) : {};
  } catch {
    return null;
  }
}

/** keep has the device remember; false where it does not. */
export function keep(key: string, memory: Memory): boolean {
  try {
    if (Object.keys(memory).length === 0) localStorage.removeItem(place(key));
    else localStorage.setItem(place(key), JSON.stringify(memory));
    return true;
  } catch {
    return false;
  }
}

/** marked is the memory with marks added to those of a day, or taken from them where they are false. */
export function marked(memory: Memory, day: string, marks: Marks): Memory {
  const { [day]: before, ...rest } = memory;
  const left = Object.fromEntries(Object.entries({ ...before, ...marks }).filter(([, on]) => on));
  return Object.keys(left).length > 0 ? { ...rest, [day]: left } : rest;
}
