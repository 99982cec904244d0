import { each, numberText } from "../wire/message";

/** clock writes milliseconds as 1:05, or 1:02:05 where there are hours. */
export function clock(ms: number): string {
  const total = Math.max(0, Math.round(ms / 1000));
  const hours = Math.floor(total / 3600);
  const minutes = Math.floor((total % 3600) / 60);
  const seconds = String(total % 60).padStart(2, "0");
  return hours > 0 ? `${hours}:${String(minutes).padStart(2, "0")}:${seconds}` : `${minutes}:${seconds}`;
}

/** The order of days and hours is that of the region which the browser is set to, the words are those of a language. */
const region = new Intl.Locale(Intl.DateTimeFormat().resolvedOptions().locale).maximize().region;
const localeOf = (tag: string) => `${tag}-${region ?? "GB"}`;

let usual = "en";

/** writeDatesIn is the language of dates and numbers on this page, where no other is asked for. */
export function writeDatesIn(tag: string): void {
  usual = tag;
}

/** momentOf is a moment of a class, in ms from its start: the time of day, and the time since the start where nothing is really led. */
export function momentOf(score: { started_ms: number }, ms: number): string {
  return score.started_ms === 0 ? clock(ms) : timeOfDay(score.started_ms + ms);
}

const times = each((locale) => new Intl.DateTimeFormat(locale, { hour: "numeric", minute: "2-digit" }));

export function timeOfDay(ms: number, tag = usual): string {
  return times(localeOf(tag)).format(ms);
}

/** secondOfDay is a time of day to the second, as the browser's region writes it. */
export function secondOfDay(ms: number): string {
  return new Date(ms).toLocaleTimeString(localeOf(usual), {
    hour: "numeric",
    minute: "2-digit",
    second: "2-digit",
  });
}

/** weekly is a time that is stored as 18:30, as the browser's region writes it; what is no time is left as it is. */
export function weekly(time: string): string {
  const match = /^(\d\d):(\d\d)$/.exec(time);
  return match ? timeOfDay(new Date(2000, 0, 1, Number(match[1]), Number(match[2])).getTime()) : time;
}

/** readTimeOfDay reads 18:42, 18:42:30, 6:42 pm: the seconds since midnight; null where it is no time of day. */
export function readTimeOfDay(text: string): number | null {
  const match = /^(\d?\d):(\d\d)(?::(\d\d))?\s*([ap])?\.?\s*m?\.?$/i.exec(text.trim());
  if (!match) return null;
  const half = match[4]?.toLowerCase();
  let hours = Number(match[1]);
  const [minutes, seconds] = [Number(match[2]), Number(match[3] ?? 0)];
  if (minutes > 59 || seconds > 59 || hours > 23 || (half && (hours < 1 || hours > 12))) return null;
  if (half) hours = (hours % 12) + (half === "p" ? 12 : 0);
  return hours * 3600 + minutes * 60 + seconds;
}

export function day(ms: number, today = Date.now(), tag = usual): string {
  const at = new Date(ms);
  const midnight = (t: number) => new Date(t).setHours(0, 0, 0, 0);
  const days = Math.round((midnight(ms) - midnight(today)) / 86_400_000);
  if (Math.abs(days) <= 1) return new Intl.RelativeTimeFormat(tag, { numeric: "auto" }).format(days, "day");
  const year = at.getFullYear() === new Date(today).getFullYear() ? undefined : "numeric";
  return at.toLocaleDateString(localeOf(tag), { weekday: "long", day: "numeric", month: "long", year });
}

export function shortDay(ms: number): string {
  return new Date(ms).toLocaleDateString(localeOf(usual), { day: "numeric", month: "short" });
}

/** weekday names a day in a narrow column, as Thu 26. */
export function weekday(ms: number): string {
  return new Date(ms).toLocaleDateString(localeOf(usual), { weekday: "short", day: "numeric" });
}

export function minutes(ms: number): string {
  return `${Math.round(ms / 60_000)} min`;
}

/** number writes at most one decimal, with the decimal sign of the page's language. */
export function number(x: number): string {
  return numberText(Math.round(x * 10) / 10, usual);
}
