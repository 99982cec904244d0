import { text } from "./fields";

/** localTime is a time of a plan as a field of a form has it. */
export function localTime(value: unknown): string {
  const at = new Date(text(value));
  if (Number.isNaN(at.getTime())) return "";
  return new Date(at.getTime() - at.getTimezoneOffset() * 60_000).toISOString().slice(0, 16);
}

/** withZone writes a local time as RFC 3339 with this machine's offset at that time. */
export function withZone(local: string): string | undefined {
  if (local === "") return undefined;
  const offset = -new Date(local).getTimezoneOffset();
  const two = (n: number) => String(Math.trunc(Math.abs(n))).padStart(2, "0");
  return `${local}:00${offset < 0 ? "-" : "+"}${two(offset / 60)}:${two(offset % 60)}`;
}
