import type { Fact } from "./contract";

/**
 * A message is a text with places to fill in, in the syntax of ICU MessageFormat: {name}, {n, plural, one {# round} other
 * {# rounds}} and {side, select, left {...} other {...}}. One addition of ours: {names, list, or} joins a list. It is read
 * here as in the program's package language; a test holds both to the same results.
 */
type Piece = string | { name: string; list?: string; cases?: Map<string, Piece[]>; plural?: boolean } | null;

/** Value is an argument of a message. */
export type Value = string | number | Fact | Fact[];

/** Render makes a text of a fact among the arguments. */
type Render = (fact: Fact) => string;

/** message reads the text of a message. A null stands for the number of the plural around it. */
export function message(text: string): Piece[] {
  let rest = text;
  const pieces = (inside: boolean): Piece[] => {
    const list: Piece[] = [];
    while (rest !== "") {
      if (rest.startsWith("'{") || rest.startsWith("'}")) {
        const end = rest.indexOf("'", 1);
        list.push(rest.slice(1, end));
        rest = rest.slice(end + 1);
      } else if (rest.startsWith("}")) {
        return list;
      } else if (rest.startsWith("{")) {
        list.push(place());
      } else if (inside && rest.startsWith("#")) {
        list.push(null);
        rest = rest.slice(1);
      } else {
        const end = rest.slice(1).search(/[{}#']/) + 1 || rest.length;
        list.push(rest.slice(0, end));
        rest = rest.slice(end);
      }
    }
    return list;
  };
  const place = (): Piece => {
    const head = /^\{\s*([\w-]+)\s*(?:,\s*(\w+)\s*,?\s*)?/.exec(rest);
    if (!head) throw new Error(`not understood: ${rest}`);
    rest = rest.slice(head[0].length);
    const [, name = "", kind] = head;
    if (kind !== "plural" && kind !== "select") {
      const end = rest.indexOf("}");
      const list = rest.slice(0, end).trim();
      rest = rest.slice(end + 1);
      return kind === "list" ? { name, list } : { name };
    }
    const cases = new Map<string, Piece[]>();
    for (let of = /^\s*([^\s{}]+)\s*\{/.exec(rest); of; of = /^\s*([^\s{}]+)\s*\{/.exec(rest)) {
      rest = rest.slice(of[0].length);
      cases.set(of[1]!, pieces(kind === "plural"));
      rest = rest.slice(1);
    }
    rest = rest.trimStart().slice(1);
    return { name, cases, plural: kind === "plural" };
  };
  return pieces(false);
}

const separators: { [name: string]: string } = { comma: ", ", space: " ", newline: "\n" };

/** written is a message with its places filled in. */
export function written(
  pieces: Piece[],
  args: { [name: string]: unknown },
  render: Render,
  number = "",
): string {
  return pieces
    .map((piece) => {
      if (typeof piece === "string") return piece;
      if (piece === null) return number;
      const value = args[piece.name] as Value | undefined;
      if (piece.list) return joined(Array.isArray(value) ? value.map(render) : [], piece.list);
      const text = valueText(value, render);
      if (!piece.cases) return text;
      const { cases, plural } = piece;
      const chosen = plural
        ? (cases.get(`=${text}`) ?? (text === "1" ? cases.get("one") : undefined))
        : cases.get(text);
      return written(chosen ?? cases.get("other") ?? [], args, render, plural ? text : number);
    })
    .join("");
}

function joined(texts: string[], word: string): string {
  const between = separators[word];
  if (between !== undefined) return texts.join(between);
  const last = texts.at(-1) ?? "";
  return texts.length < 2 ? last : `${texts.slice(0, -1).join(", ")} ${word} ${last}`;
}

function valueText(value: Value | undefined, render: Render): string {
  if (value === undefined || Array.isArray(value)) return "";
  return typeof value === "object" ? render(value) : String(value);
}
