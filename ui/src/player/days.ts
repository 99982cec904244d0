/** atMidnight is when the day begins in which a moment is, or one so many days after it. */
export function atMidnight(ms: number, later = 0): number {
  const at = new Date(ms);
  return new Date(at.getFullYear(), at.getMonth(), at.getDate() + later).getTime();
}

/** localInput writes a moment as a field for a date and a time takes it. */
export function localInput(ms: number): string {
  const at = new Date(ms);
  return new Date(ms - at.getTimezoneOffset() * 60_000).toISOString().slice(0, 16);
}
