import { type DBSchema, type IDBPDatabase, openDB } from "idb";
import type { Kit, Pressed } from "../wire/contract";
import { newKey } from "../wire/key";

/** KeptKit is a class as this device keeps it. */
export type KeptKit = Kit & {
  /** of a class that was begun here while the program did not answer: the cautions that were read before */
  acknowledged?: string[];
  /** and when it ends, as far as is known */
  ends_ms?: number;
};

/** KeptPress is a press as this device keeps it until a newer kit has it. */
type KeptPress = {
  class: number;
  pressed: Pressed;
  /** whether the program has it */
  sent: boolean;
};

interface Schema extends DBSchema {
  classes: { key: number; value: KeptKit };
  presses: { key: number; value: KeptPress; indexes: { class: number } };
}

/** atOnce is how many presses are sent at once; the others follow. */
export const atOnce = 500;

let opening: Promise<IDBPDatabase<Schema>> | null = null;

function database(): Promise<IDBPDatabase<Schema>> {
  opening ??= openDB<Schema>("lantern", 1, {
    upgrade(db) {
      db.createObjectStore("classes");
      db.createObjectStore("presses", { autoIncrement: true }).createIndex("class", "class");
    },
    terminated: () => (opening = null),
  });
  opening.catch(() => (opening = null)); // as in a private window; the next one tries again
  return opening;
}

/** Kept is a class as it was kept last, if it was, the presses since in order, and those of them that the program lacks. */
export type Kept = { kit: KeptKit | undefined; presses: Pressed[]; unsent: Pressed[] };

export async function keptClass(id: number): Promise<Kept> {
  const db = await database();
  const [kit, presses] = await Promise.all([
    db.get("classes", id),
    db.getAllFromIndex("presses", "class", id),
  ]);
  return {
    kit,
    presses: presses.map((press) => press.pressed),
    unsent: presses.filter((press) => !press.sent).map((press) => press.pressed),
  };
}

/** keepClass keeps a class and forgets the presses that are in it. */
export async function keepClass(kit: KeptKit): Promise<void> {
  const had = new Set(kit.pressed.map((pressed) => pressed.key));
  const change = (await database()).transaction(["classes", "presses"], "readwrite");
  await change.objectStore("classes").put(kit, kit.class_id);
  let press = await change.objectStore("presses").index("class").openCursor(kit.class_id);
  while (press) {
    if (had.has(press.value.pressed.key)) await press.delete();
    press = await press.continue();
  }
  await change.done;
}

/** renumber keeps a class that was begun here as the program has it, under its number there. */
export async function renumber(from: number, kit: Kit): Promise<void> {
  const change = (await database()).transaction(["classes", "presses"], "readwrite");
  await change.objectStore("classes").delete(from);
  await change.objectStore("classes").put(kit, kit.class_id);
  let press = await change.objectStore("presses").index("class").openCursor(from);
  while (press) {
    await press.update({ ...press.value, class: kit.class_id });
    press = await press.continue();
  }
  await change.done;
}

/** keepPress keeps a press that the program does not have yet; it fails where the device has no room. */
export async function keepPress(id: number, pressed: Pressed): Promise<void> {
  await (await database()).add("presses", { class: id, pressed, sent: false });
}

/** noteSent notes that the program has presses of a class. */
export async function noteSent(id: number, keys: string[]): Promise<void> {
  const change = (await database()).transaction("presses", "readwrite");
  let press = await change.store.index("class").openCursor(id);
  while (press) {
    if (keys.includes(press.value.pressed.key)) await press.update({ ...press.value, sent: true });
    press = await press.continue();
  }
  await change.done;
}

/** forgetClass forgets a class: it is over, and the program has all of it. */
export async function forgetClass(id: number): Promise<void> {
  const change = (await database()).transaction(["classes", "presses"], "readwrite");
  await change.objectStore("classes").delete(id);
  for (const key of await change.objectStore("presses").index("class").getAllKeys(id))
    await change.objectStore("presses").delete(key);
  await change.done;
}

/** KeptHere is a class that is kept on this device, and how many of its changes the program does not have; its begin is one. */
export type KeptHere = {
  /** negative where it was begun here and the program does not know it */
  id: number;
  title: string;
  group: string;
  startedMS: number;
  endsMS: number | undefined;
  unsent: number;
};

/** everythingKept is what is kept on this device. */
export async function everythingKept(): Promise<KeptHere[]> {
  const db = await database();
  const [kits, presses] = await Promise.all([db.getAll("classes"), db.getAll("presses")]);
  return kits.map((kit) => ({
    id: kit.class_id,
    title: (JSON.parse(kit.document) as { title?: string }).title ?? "",
    group: kit.group?.name ?? "",
    startedMS: kit.started_ms,
    endsMS: kit.ends_ms,
    unsent:
      presses.filter((press) => press.class === kit.class_id && !press.sent).length +
      (kit.class_id < 0 ? 1 : 0),
  }));
}

/** runningHere is the class that was begun here, is in progress, and that the program does not know. */
export async function runningHere(now: number): Promise<KeptHere | undefined> {
  return (await everythingKept()).find(({ id, endsMS }) => id < 0 && (endsMS ?? 0) > now);
}

/** endHere ends such a class, so that another one can begin. */
export async function endHere(id: number, now: number): Promise<void> {
  const { kit } = await keptClass(id);
  if (!kit) return;
  const key = newKey();
  const line = { at_ms: Math.floor(now - kit.started_ms), key, do: "end" };
  await keepPress(id, { key, origin: kit.origin, line });
  await keepClass({ ...kit, ends_ms: now });
}

/** removeEverything removes what is kept on this device. */
export async function removeEverything(): Promise<void> {
  const change = (await database()).transaction(["classes", "presses"], "readwrite");
  await Promise.all([change.objectStore("classes").clear(), change.objectStore("presses").clear()]);
  await change.done;
}
