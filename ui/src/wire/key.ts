/**
 * newKey is a name that nobody else takes, for a press that may be sent twice. crypto.randomUUID would do, but pages from
 * another machine on a plain http address do not have it.
 */
export function newKey(): string {
  const random = crypto.getRandomValues(new Uint8Array(16));
  return Array.from(random, (byte) => byte.toString(16).padStart(2, "0")).join("");
}
