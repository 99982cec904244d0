/** A place in a document: the names of the fields that lead there. */
export type Path = string[];

/** Difference is a field that another screen changed, and the two values that it can have. */
export type Difference = { path: Path; mine: unknown; theirs: unknown };

type Fields = { [name: string]: unknown };

const same = (a: unknown, b: unknown) => JSON.stringify(a) === JSON.stringify(b);

const isFields = (value: unknown): value is Fields =>
  typeof value === "object" && value !== null && !Array.isArray(value);

const names = (...all: Fields[]) => [...new Set(all.flatMap(Object.keys))];

/**
 * merge is mine with what they changed since base. Where both changed the same field it is mine. Lists are one value: an item that
 * moved cannot be told from one that was typed.
 */
export function merge<Value>(base: Value, mine: Value, theirs: Value): Value {
  if (same(mine, base)) return theirs;
  if (same(theirs, base) || !isFields(mine) || !isFields(theirs)) return mine;
  const from: Fields = isFields(base) ? base : {};
  const merged: Fields = {};
  for (const name of names(mine, theirs)) {
    const value = merge(from[name], mine[name], theirs[name]);
    if (value !== undefined) merged[name] = value;
  }
  return merged as Value;
}

/** differences is the fields that they changed since base and that are not the same in mine. */
export function differences(base: unknown, mine: unknown, theirs: unknown, path: Path = []): Difference[] {
  if (same(mine, theirs) || same(theirs, base)) return [];
  if (isFields(mine) && isFields(theirs)) {
    const from = isFields(base) ? base : {};
    return names(from, mine, theirs).flatMap((name) =>
      differences(from[name], mine[name], theirs[name], [...path, name]),
    );
  }
  return [{ path, mine, theirs }];
}

/** at is the value at a place; undefined where there is none. */
export function at(value: unknown, [name, ...rest]: Path): unknown {
  if (name === undefined) return value;
  return isFields(value) ? at(value[name], rest) : undefined;
}

/** withAt is the document with another value at a place, or without the field where that is undefined. */
export function withAt<Value>(value: Value, [name, ...rest]: Path, put: unknown): Value {
  if (name === undefined) return put as Value;
  const fields: Fields = isFields(value) ? { ...value } : {};
  const next = withAt(fields[name], rest, put);
  if (next === undefined) delete fields[name];
  else fields[name] = next;
  return fields as Value;
}
