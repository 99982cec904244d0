// Calendar days as YYYY-MM-DD, without an hour or a time zone: the day on which a practice begins is the same day on every
// device, and a day has its number also where a clock is put forward or back.

const day = 86_400_000;

/** calendarDay is the day that it is on this device at a moment. */
export function calendarDay(at: Date): string {
  const two = (n: number) => String(n).padStart(2, "0");
  return `${at.getFullYear()}-${two(at.getMonth() + 1)}-${two(at.getDate())}`;
}

/** dayNumber is the number of a day, which is 1 on the first one; 0 and less before it. */
export function dayNumber(begins: string, on: string): number {
  return Math.round((Date.parse(`${on}T00:00Z`) - Date.parse(`${begins}T00:00Z`)) / day) + 1;
}

/** dayOf is the calendar day of a number. */
export function dayOf(begins: string, number: number): string {
  return new Date(Date.parse(`${begins}T00:00Z`) + (number - 1) * day).toISOString().slice(0, 10);
}

/** dayInWords writes a calendar day as "Monday 30 November", in a language. */
export function dayInWords(on: string, tag: string): string {
  return new Date(`${on}T00:00Z`).toLocaleDateString(tag === "en" ? "en-GB" : tag, {
    weekday: "long",
    day: "numeric",
    month: "long",
    timeZone: "UTC",
  });
}
