import english from "../../../language/en.json";
import { Failed } from "../wire/api";
import type { Fact } from "../wire/contract";
import { message, written } from "../wire/message";

const messages: { [id: string]: string } = english;
const read = new Map<string, ReturnType<typeof message>>();

/** text is a fact in words; nothing for none. One without a message is shown as it is, so that nothing is lost. */
export function text(fact: Fact | null | undefined): string {
  if (!fact?.id) return "";
  const source = messages[fact.id];
  if (source === undefined) return `${fact.id} ${JSON.stringify(fact.args ?? {})}`;
  let pieces = read.get(fact.id);
  if (!pieces) read.set(fact.id, (pieces = message(source)));
  return written(pieces, fact.args ?? {}, text);
}

/** wordOf is what an id is called, by the message "<family>.<id>"; the id itself where there is none. */
export function wordOf(family: string, id: string): string {
  const key = `${family}.${id}`;
  return key in messages ? text({ id: key }) : id;
}

/** failureText is what an error tells a person. */
export function failureText(error: unknown): string {
  if (error instanceof Failed) return text(error.problem.say);
  return error instanceof Error ? error.message : String(error);
}
