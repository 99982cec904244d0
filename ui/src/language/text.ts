import { createElement, Fragment, type ReactNode } from "react";
import { Failed } from "../wire/api";
import type { Fact } from "../wire/contract";
import { type Arguments, message, parts, written, type Writer } from "../wire/message";
import { inUse, type Key } from "./catalogue";

export type { Key } from "./catalogue";

const read = new Map<string, ReturnType<typeof message>>();

function piecesOf(source: string) {
  let pieces = read.get(source);
  if (!pieces) read.set(source, (pieces = message(source)));
  return pieces;
}

const writer = (): Writer => ({ tag: inUse().tag, text });

/** t is a text of the screens with its places filled in. */
export function t(key: Key, args: Arguments = {}): string {
  return written(piecesOf(inUse().messages[key] ?? key), args, writer());
}

/** rich is a text with elements in its places, such as a link in a sentence. */
export function rich(key: Key, args: Arguments<ReactNode>): ReactNode {
  const all = parts(piecesOf(inUse().messages[key] ?? key), args, writer());
  return createElement(Fragment, null, ...all);
}

/** text is a fact in words; nothing for none. One without a message is shown as it is, so that nothing is lost. */
export function text(fact: Fact | null | undefined): string {
  if (!fact?.id) return "";
  const source = inUse().messages[fact.id];
  if (source === undefined) return `${fact.id} ${JSON.stringify(fact.args ?? {})}`;
  return written(piecesOf(source), (fact.args ?? {}) as Arguments, writer());
}

/** wordOf is what an id is called, by the message "<family>.<id>"; the id itself where there is none. */
export function wordOf(family: string, id: string): string {
  const key = `${family}.${id}`;
  return key in inUse().messages ? text({ id: key }) : id;
}

/** failureText is what an error tells a person. */
export function failureText(error: unknown): string {
  if (error instanceof Failed) return text(error.problem.say);
  return error instanceof Error ? error.message : String(error);
}
