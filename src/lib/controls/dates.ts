/** Days and moments in words. */
const day = { day: 'numeric', month: 'long', year: 'numeric' } as const;

/** "12 June 2027" of "2027-06-12"; with its weekday, "Saturday 12 June 2027". */
export const dateWords = (date: string, withWeekday = false): string =>
  new Date(`${date}T12:00`).toLocaleDateString('en-GB', withWeekday ? { weekday: 'long', ...day } : day);

/** "26 November 2026" of a moment on this device's clock. */
export const dateText = (ms: number): string => new Date(ms).toLocaleDateString('en-GB', day);

/** "26 November 2026 at 10:05". */
export const momentWords = (ms: number): string =>
  new Date(ms).toLocaleString('en-GB', { ...day, hour: '2-digit', minute: '2-digit' });

/** "2026-11-26" on this device's clock. */
export const isoDate = (at: Date): string => at.toLocaleDateString('sv');
