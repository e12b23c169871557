/** What a photo says of where people stand, in sentences. */
import { extent, median } from 'd3-array';
import type { GroupRead } from '../fromPhoto/readGroup';
import type { StopHeld } from '../fromPhoto/howSure';
import type { Untold } from '../fromPhoto/projection';
import { formatLength, type LengthUnit } from '../units/length';

const counted = (count: number, one: string, more: string): string => `${count} ${count === 1 ? one : more}`;

/** "14 faces in 3 rows, 4.8 m to 6.6 m away, each ±7%". */
export function groupWords({ people, rows, untold }: GroupRead, unit: LengthUnit): string {
  const ahead = people.map(({ aheadMm }) => aheadMm);
  const [nearest = 0, furthest = 0] = extent(ahead);
  const share = Math.round(100 * (median(people, ({ low, high, aheadMm }) => (high - low) / 2 / aheadMm) ?? 0));
  const [from, to] = [formatLength(nearest, unit), formatLength(furthest, unit)];
  const where = from === to ? `${from} away` : `${from} to ${to} away`;
  const more = untold.length === 0 ? '' : `; ${untold.length} more too small, or turned too far, to count`;
  const inRows = rows.length > 1 ? ` in ${rows.length} rows` : '';
  return `${counted(people.length, 'face', 'faces')}${inRows}, ${where}${people.length > 1 ? ', each' : ''} ±${share}%${more}`;
}

/** Held in so many of a hundred, a stop is as good as sure (chosen). */
const sure = 0.9;

/** The first stop, from the one called on, that holds in nine of ten of what the photo may mean; null where none does. */
export function surerStop(held: readonly StopHeld[], called: string): StopHeld | null {
  const from = held.findIndex(({ stop }) => stop === called);
  return held.slice(Math.max(0, from)).find(({ share }) => share >= sure) ?? null;
}

/** Never all of them: nothing is certain. */
export const ofHundred = (share: number): number => Math.min(99, Math.round(100 * share));

/** "f/5.6 holds in 72 of 100 of what this photo may mean." Null where nothing is known of it. */
export function sureWords(held: readonly StopHeld[], called: string): string | null {
  const own = held.find(({ stop }) => stop === called);
  return own ? `f/${called} keeps everyone sharp in ${ofHundred(own.share)} of 100 of what this photo may mean.` : null;
}

export const untoldWords: Readonly<Record<Untold | 'noFace' | 'small', string>> = {
  noFacts:
    'This file doesn’t say how it was taken: a screenshot, or a photo sent through a messenger. Choose the original. Nothing was changed.',
  noFocalLength:
    'This photo has no focal length. Choose one from a phone, or from a lens that reports it. Nothing was changed.',
  cropped: 'This photo was cropped, so it doesn’t tell distances. Choose the uncropped original. Nothing was changed.',
  noFace: 'No faces found. Take one from nearer, with everyone looking your way. Nothing was changed.',
  small: 'The faces are too small, or turned too far, to tell distances. Take one from nearer. Nothing was changed.'
};
