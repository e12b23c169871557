/** The day in words. */
import type { BetterOrder } from '../day/order';
import type { DayEntry, Timetable } from '../day/timetable';
import { clockOf } from '../setup/schedule';

const plural = (count: number, one: string, many: string) => `${count} ${count === 1 ? one : many}`;

/** "8 setups, 13:40–20:30". */
export function dayTitle(day: Timetable): string {
  const { entries } = day;
  const count = plural(entries.length, 'setup', 'setups');
  const starts = entries.find((entry) => entry.startsAt !== null)?.startsAt;
  const ends = entries.reduce<number | null>(
    (last, { endsAt }) => (endsAt === null ? last : Math.max(last ?? 0, endsAt)),
    null
  );
  return starts == null || ends === null ? count : `${count}, ${clockOf(starts)}–${clockOf(ends)}`;
}

/** "1 h 25 min", "40 min". */
export function durationWords(minutes: number): string {
  const whole = Math.round(minutes);
  const [hours, rest] = [Math.floor(whole / 60), whole % 60];
  if (hours === 0) return `${rest} min`;
  return rest === 0 ? `${hours} h` : `${hours} h ${rest} min`;
}

/** "4 lens changes · 3 walks · 2 h 10 min". */
export function costWords({ lensChanges, walks, minutes }: Timetable): string {
  return [
    plural(lensChanges, 'lens change', 'lens changes'),
    plural(walks, 'walk', 'walks'),
    durationWords(minutes)
  ].join(' · ');
}

/** "Swap 4 and 6: 2 lens changes fewer". */
export function betterOrderWords({ kind, from, to, lensChangesFewer, walksFewer }: BetterOrder): string {
  const say = (count: number, one: string, many: string) =>
    count === 0 ? [] : [`${Math.abs(count)} ${Math.abs(count) === 1 ? one : many} ${count > 0 ? 'fewer' : 'more'}`];
  const gains = [...say(lensChangesFewer, 'lens change', 'lens changes'), ...say(walksFewer, 'walk', 'walks')];
  const what =
    kind === 'swap'
      ? `Swap ${from + 1} and ${to + 1}`
      : `Move ${from + 1} ${to < from ? `before ${to + 1}` : `after ${to + 1}`}`;
  return `${what}: ${gains.length === 0 ? 'less waiting' : gains.join(', ')}`;
}

/** "20 min too tight", or empty. */
export function clashWords({ clashMinutes }: DayEntry): string {
  return clashMinutes === 0 ? '' : `${durationWords(clashMinutes)} too tight`;
}

/** "3 alike: 3, 6, 8". */
export function alikeWords(numbers: readonly number[]): string {
  return `${numbers.length} alike: ${numbers.join(', ')}`;
}

/** A list of numbers of setups, neighbours as a range: "1–3, 7". */
export function numbersWords(indices: readonly number[]): string {
  const sorted = [...indices].sort((a, b) => a - b);
  const parts: { from: number; to: number }[] = [];
  for (const index of sorted) {
    const last = parts[parts.length - 1];
    if (last && index === last.to + 1) last.to = index;
    else parts.push({ from: index, to: index });
  }
  return parts
    .map(({ from, to }) =>
      from === to ? String(from + 1) : to === from + 1 ? `${from + 1}, ${to + 1}` : `${from + 1}–${to + 1}`
    )
    .join(', ');
}

/** A clock against the plan: "6 min left", "4 min late", "in 20 min"; empty when no time is said. */
export function clockAgainstPlan(entry: DayEntry | undefined, nowMinute: number, done: boolean): string {
  if (!entry || entry.startsAt === null || entry.endsAt === null) return '';
  if (done) return '';
  // A day past midnight goes on counting.
  const now = nowMinute + 12 * 60 < entry.startsAt ? nowMinute + 1440 : nowMinute;
  if (now < entry.startsAt) return `in ${durationWords(Math.ceil(entry.startsAt - now))}`;
  if (now < entry.endsAt) return `${durationWords(Math.ceil(entry.endsAt - now))} left`;
  return `${durationWords(Math.floor(now - entry.endsAt))} over`;
}

type ReadClock =
  { readonly ok: true; readonly value: string | null } | { readonly ok: false; readonly message: string };

/** Reads a time as people type it: "14:35", "1435", "9", "2.30 pm", "2:30p"; nothing for no time. */
export function readClock(typed: string): ReadClock {
  const text = typed.trim().toLowerCase();
  if (text === '') return { ok: true, value: null };
  const refused: ReadClock = { ok: false, message: 'Type a time such as 14:35.' };
  const [, hours, minutes = '0', half] =
    /^(\d{1,2})(?:[:.h ]?(\d{2}))? *(am?|pm?)?\.?$/.exec(text.replaceAll('.m.', 'm')) ?? [];
  if (hours === undefined) return refused;
  let hour = Number(hours);
  if (half !== undefined) {
    if (hour < 1 || hour > 12) return refused;
    hour = (hour % 12) + (half.startsWith('p') ? 12 : 0);
  }
  if (hour > 23 || Number(minutes) > 59) return refused;
  return { ok: true, value: clockOf(hour * 60 + Number(minutes)) };
}
