/** clock writes milliseconds as 1:05, or 1:02:05 where there are hours. */
export function clock(ms: number): string {
  const total = Math.max(0, Math.round(ms / 1000));
  const hours = Math.floor(total / 3600);
  const minutes = Math.floor((total % 3600) / 60);
  const seconds = String(total % 60).padStart(2, "0");
  return hours > 0 ? `${hours}:${String(minutes).padStart(2, "0")}:${seconds}` : `${minutes}:${seconds}`;
}

/** The words are English, and the order of days and hours is that of the region which the browser is set to. */
const region = new Intl.Locale(Intl.DateTimeFormat().resolvedOptions().locale).maximize().region;
const locale = `en-${region ?? "GB"}`;

/** momentOf is a moment of a class, in ms from its start: the time of day, and the time since the start where nothing is really led. */
export function momentOf(score: { started_ms: number }, ms: number): string {
  return score.started_ms === 0 ? clock(ms) : timeOfDay(score.started_ms + ms);
}

export function timeOfDay(ms: number): string {
  return new Date(ms).toLocaleTimeString(locale, { hour: "numeric", minute: "2-digit" });
}

export function day(ms: number, today = Date.now()): string {
  const at = new Date(ms);
  const midnight = (t: number) => new Date(t).setHours(0, 0, 0, 0);
  const days = Math.round((midnight(ms) - midnight(today)) / 86_400_000);
  if (days === 0) return "today";
  if (days === 1) return "tomorrow";
  if (days === -1) return "yesterday";
  const year = at.getFullYear() === new Date(today).getFullYear() ? undefined : "numeric";
  return at.toLocaleDateString(locale, { weekday: "long", day: "numeric", month: "long", year });
}

export function shortDay(ms: number): string {
  return new Date(ms).toLocaleDateString(locale, { day: "numeric", month: "short" });
}

/** weekday names a day in a narrow column, as Thu 26. */
export function weekday(ms: number): string {
  return new Date(ms).toLocaleDateString(locale, { weekday: "short", day: "numeric" });
}

export function minutes(ms: number): string {
  return `${Math.round(ms / 60_000)} min`;
}

/** number writes at most one decimal. */
export function number(x: number): string {
  return String(Math.round(x * 10) / 10);
}

export function plural(n: number, one: string, many = `${one}s`): string {
  return `${n} ${n === 1 ? one : many}`;
}
