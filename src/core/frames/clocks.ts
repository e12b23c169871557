/** The clocks of bodies: no two agree. What is to be added to each, and how it is found from the ticks of the day. */
import { median } from 'd3-array';
import { textHash } from '../people/appearance';
import type { Frame } from './schema';

export interface Clock {
  /** The body: make and model as its files say, and a mark of its serial number (`clockKey`). */
  readonly body: string;
  /** To be added to its clock, ms. */
  readonly offsetMs: number;
}

type OfBody = Pick<Frame, 'body' | 'serial'>;

const joined = (...parts: readonly (string | null)[]): string =>
  parts.filter((part) => part !== null).join(' · ') || 'body not set';

/** Tells bodies of one model apart, and not their serial number: twenty bits, which a hundred numbers of eight digits share. */
const markOf = (serial: string): string => `#${(textHash(serial) & 0xfffff).toString(16).padStart(5, '0')}`;

/** Which clock a frame's time is by; nothing of it gives the serial number away. */
export const clockKey = ({ body, serial }: OfBody): string => joined(body, serial === null ? null : markOf(serial));

/** As jobs have it that were made before: with the serial number. */
const formerKey = ({ body, serial }: OfBody): string => joined(body, serial);

/** What is to be added to the clock of a frame's body, ms; 0 where nothing is known. */
export function clockOffset(frame: OfBody, clocks: readonly Clock[]): number {
  const of = (key: string) => clocks.find(({ body }) => body === key);
  return (of(clockKey(frame)) ?? of(formerKey(frame)))?.offsetMs ?? 0;
}

/** Clocks as they may leave in a file: serial numbers of jobs made before become marks. */
export function clocksWithoutSerials(clocks: readonly Clock[]): Clock[] {
  const marked = clocks.map(({ body, offsetMs }): Clock => {
    const [, model = '', serial = ''] = /^(.*) · ([^#].*)$/.exec(body) ?? [];
    return { body: serial === '' ? body : joined(model, markOf(serial)), offsetMs };
  });
  return marked.filter(({ body }, index) => marked.findIndex((other) => other.body === body) === index);
}

/** The time of a frame, corrected, as if it were UTC, ms; null where its file does not say. */
export function timeOf(frame: Pick<Frame, 'body' | 'serial' | 'clockMs'>, clocks: readonly Clock[]): number | null {
  if (frame.clockMs === null) return null;
  return frame.clockMs + clockOffset(frame, clocks);
}

/** A setup that was ticked: when, and the last frame of one body before it. Both as if UTC, ms. */
export interface Tick {
  readonly tickMs: number;
  readonly lastMs: number;
}

export interface ClockFit {
  readonly offsetMs: number;
  /** Ticks it rests on. */
  readonly ticks: number;
  /** Half of them lie within so much of it, ms. */
  readonly spreadMs: number;
}

/** From the last frame to its tick one walks and looks, ms (from memory). */
const untilTickMs = 20_000;

/**
 * The offset that brings the last frame of each setup to just before its tick: the median, so that one forgotten tick does no harm. Null
 * without a tick.
 */
export function fitClock(ticks: readonly Tick[]): ClockFit | null {
  const each = ticks.map(({ tickMs, lastMs }) => tickMs - untilTickMs - lastMs);
  const offset = median(each);
  if (offset === undefined) return null;
  const spreadMs = median(each, (one) => Math.abs(one - offset)) ?? 0;
  return { offsetMs: Math.round(offset / 1000) * 1000, ticks: each.length, spreadMs };
}

const dayMs = 86_400_000;

/** What to add to a clock that showed `clockMs` when a phone beside it showed a time of the day: the nearest such time. Null for no time. */
export function offsetFromPhone(clockMs: number, shown: string): number | null {
  const match = /^\s*(\d{1,2})[:.](\d{2})(?:[:.](\d{2}))?\s*$/.exec(shown);
  if (!match) return null;
  const [hours, minutes, seconds] = [Number(match[1]), Number(match[2]), Number(match[3] ?? 0)];
  if (hours > 23 || minutes > 59 || seconds > 59) return null;
  const phone = ((hours * 60 + minutes) * 60 + seconds) * 1000;
  const off = phone - (((clockMs % dayMs) + dayMs) % dayMs);
  // Beyond half a day it is the day before or after.
  const nearest = off > dayMs / 2 ? off - dayMs : off < -dayMs / 2 ? off + dayMs : off;
  return Math.round(nearest / 1000) * 1000;
}

/** Reads "+1:20" (minutes and seconds), "-0:03:15", "1:00:00"; ms. Null for no offset. */
export function readOffset(typed: string): number | null {
  const match = /^\s*([+\-−]?)(?:(\d{1,5}):)?(\d{1,2}):(\d{2})\s*$/.exec(typed);
  if (!match) return /^\s*[+\-−]?0\s*$/.test(typed) ? 0 : null;
  const [minutes, seconds] = [Number(match[3]), Number(match[4])];
  if (minutes > 59 || seconds > 59) return null;
  const ms = ((Number(match[2] ?? 0) * 60 + minutes) * 60 + seconds) * 1000;
  return match[1] === '-' || match[1] === '−' ? -ms : ms;
}

/** "+1:20", "−1:03:15", "0:00". */
export function clockOffsetText(offsetMs: number): string {
  const all = Math.round(Math.abs(offsetMs) / 1000);
  const [hours, minutes, seconds] = [Math.floor(all / 3600), Math.floor(all / 60) % 60, all % 60];
  const two = (value: number) => String(value).padStart(2, '0');
  const text = hours > 0 ? `${hours}:${two(minutes)}:${two(seconds)}` : `${minutes}:${two(seconds)}`;
  return all === 0 ? '0:00' : `${offsetMs < 0 ? '−' : '+'}${text}`;
}
