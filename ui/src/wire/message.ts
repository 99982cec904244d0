import type { Fact } from "./contract";

/**
 * A message is a text with places to fill in, in the syntax of ICU MessageFormat: {name}, {n, plural, one {# round} other
 * {# rounds}} and {side, select, left {...} other {...}}. One addition of ours: {names, list, or} joins a list. It is read
 * here as in the program's package language; a test holds both to the same results.
 */
type Piece = string | { name: string; list?: string; cases?: Map<string, Piece[]>; plural?: boolean } | null;

/** Value is an argument of a message. */
export type Value = string | number | boolean | Fact | Fact[];

/** Writer writes what a message fills in: numbers and plural forms as its language has them, and the facts among the arguments. */
export type Writer = { tag: string; text: (fact: Fact) => string };

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

/** Arguments are the values of the places of a message by their names. Node is what else can stand in one, as an element. */
export type Arguments<Node = never> = { [name: string]: Value | Node | undefined };

/** parts is a message with its places filled in: texts, and the nodes among them. */
export function parts<Node>(
  pieces: Piece[],
  args: Arguments<Node>,
  writer: Writer,
  number = "",
): (string | Node)[] {
  return pieces.flatMap((piece) => {
    if (typeof piece === "string") return [piece];
    if (piece === null) return [number];
    const value = args[piece.name];
    if (piece.list) return [joined(Array.isArray(value) ? value.map(writer.text) : [], piece.list)];
    if (!piece.cases) return [isValue(value) ? valueText(value, writer) : value];
    const { cases, plural } = piece;
    const text = isValue(value) && typeof value !== "number" ? valueText(value, writer) : String(value);
    const chosen = plural
      ? (cases.get(`=${text}`) ?? cases.get(pluralRules(writer.tag).select(Number(text))))
      : cases.get(text);
    const inner = plural ? numberText(Number(text), writer.tag) : number;
    return parts(chosen ?? cases.get("other") ?? [], args, writer, inner);
  });
}

/** written is a message with its places filled in. */
export function written(pieces: Piece[], args: Arguments, writer: Writer): string {
  return parts(pieces, args, writer).join("");
}

function joined(texts: string[], word: string): string {
  const between = separators[word];
  if (between !== undefined) return texts.join(between);
  const last = texts.at(-1) ?? "";
  return texts.length < 2 ? last : `${texts.slice(0, -1).join(", ")} ${word} ${last}`;
}

function isValue(value: unknown): value is Value | undefined {
  return typeof value !== "object" || Array.isArray(value) || (value !== null && "id" in value);
}

function valueText(value: Value | undefined, writer: Writer): string {
  if (value === undefined || Array.isArray(value)) return "";
  if (typeof value === "number") return numberText(value, writer.tag);
  return typeof value === "object" ? writer.text(value) : String(value);
}

const pluralRules = each((tag) => new Intl.PluralRules(tag));
const numbers = each((tag) => new Intl.NumberFormat(tag, { useGrouping: false, maximumFractionDigits: 10 }));

/** numberText is a number with the decimal sign of the language. */
export const numberText = (n: number, tag: string) => numbers(tag).format(n);

/** each makes what writes texts of a language once: making it takes longer than all that it writes. */
export function each<T>(make: (tag: string) => T): (tag: string) => T {
  const made = new Map<string, T>();
  return (tag) => {
    let one = made.get(tag);
    if (one === undefined) made.set(tag, (one = make(tag)));
    return one;
  };
}
