import { type DBSchema, type IDBPDatabase, openDB } from "idb";
import type { Kit, Pressed } from "../wire/contract";

/** KeptPress is a press as this device keeps it until a newer kit has it. */
type KeptPress = {
  class: number;
  pressed: Pressed;
  /** the opening of the page in which it was made, as its clock may have been lost in between */
  opening: string;
};

/** KeptClass is a class as this device keeps it, so that it goes on without the program. */
type KeptClass = {
  kit: Kit;
  /** by how much the program's clock was ahead of this device's time of day, in ms, and how fast it ran */
  ahead: number;
  rate: number;
};

interface Schema extends DBSchema {
  classes: { key: number; value: KeptClass };
  presses: { key: number; value: KeptPress; indexes: { class: number } };
}

/** name is what the browser calls the data; School lists it. */
export const name = "lantern";

let opening: Promise<IDBPDatabase<Schema>> | null = null;

function database(): Promise<IDBPDatabase<Schema>> {
  opening ??= openDB<Schema>(name, 1, {
    upgrade(db) {
      db.createObjectStore("classes");
      db.createObjectStore("presses", { autoIncrement: true }).createIndex("class", "class");
    },
    terminated: () => (opening = null),
  });
  opening.catch(() => (opening = null)); // as in a private window; the next one tries again
  return opening;
}

/** keptClass is the class as it was kept last, if it was, and the presses in order. */
export async function keptClass(id: number): Promise<{ of: KeptClass | undefined; presses: KeptPress[] }> {
  const db = await database();
  const [of, presses] = await Promise.all([
    db.get("classes", id),
    db.getAllFromIndex("presses", "class", id),
  ]);
  return { of, presses };
}

/** keepClass keeps a class and forgets the presses that are in it. */
export async function keepClass(of: KeptClass): Promise<void> {
  const { kit } = of;
  const had = new Set(kit.pressed.map((pressed) => pressed.key));
  const change = (await database()).transaction(["classes", "presses"], "readwrite");
  await change.objectStore("classes").put(of, kit.class_id);
  let press = await change.objectStore("presses").index("class").openCursor(kit.class_id);
  while (press) {
    if (had.has(press.value.pressed.key)) await press.delete();
    press = await press.continue();
  }
  await change.done;
}

/** keepPress keeps a press; it fails where the device has no room. */
export async function keepPress(press: KeptPress): Promise<void> {
  await (await database()).add("presses", press);
}

/** replacePresses keeps presses of a class in place of those that were kept. */
export async function replacePresses(id: number, presses: KeptPress[]): Promise<void> {
  const change = (await database()).transaction("presses", "readwrite");
  const keys = await change.store.index("class").getAllKeys(id);
  await Promise.all([
    ...keys.map((key) => change.store.delete(key)),
    ...presses.map((p) => change.store.add(p)),
  ]);
  await change.done;
}

/** forgetClass forgets a class: it is over, and the program has all of it. */
export async function forgetClass(id: number): Promise<void> {
  await replacePresses(id, []);
  await (await database()).delete("classes", id);
}
