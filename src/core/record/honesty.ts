/** Whether the odds are honest: what was said against what was measured sharp; and how often frames are, by what they were shot with. */
import { nineOfTenSd } from '../maths/normal';
import { group, mean, sum } from 'd3-array';
import type { Recorded } from './schema';

/** A share with the interval that holds it nine times in ten: Wilson's (1927), J. Am. Stat. Assoc. 22, 209. */
export interface Share {
  readonly of: number;
  readonly count: number;
  readonly share: number;
  readonly low: number;
  readonly high: number;
}

/** Wilson's interval holds nine of ten. */
const z = nineOfTenSd;

/** @throws RangeError unless 0 ≤ count ≤ of and of > 0 */
export function shareOf(count: number, of: number): Share {
  if (!(of > 0) || count < 0 || count > of) throw new RangeError(`${count} of ${of} is no share.`);
  const share = count / of;
  const middle = (share + (z * z) / (2 * of)) / (1 + (z * z) / of);
  const half = (z / (1 + (z * z) / of)) * Math.sqrt((share * (1 - share)) / of + (z * z) / (4 * of * of));
  return { of, count, share, low: Math.max(0, middle - half), high: Math.min(1, middle + half) };
}

export interface SaidBin extends Share {
  /** What was said of them on average. */
  readonly said: number;
}

export interface Honesty {
  readonly bins: readonly SaidBin[];
  readonly frames: number;
  /** Mean square of what was said less what came: 0 is knowing, 0.25 is a coin (Brier 1950, Monthly Weather Review 78, 1). */
  readonly brier: number;
  /** The same of somebody who always says the average. */
  readonly brierOfAverage: number;
  /** What was said of all of them on average, and what came. */
  readonly said: number;
  readonly sharp: Share;
}

/** Frames are put together by what was said, in tenths. */
const tenths = 10;

const told = (frame: Recorded): boolean => frame.sharp !== 'unknown';
const isSharp = (frame: Recorded): boolean => frame.sharp === 'all';

/** Only frames that came with all others of their setup: keepers alone would flatter. Null where there is none. */
export function honestyOf(frames: readonly Recorded[]): Honesty | null {
  const counted = frames.flatMap((frame) =>
    frame.odds !== null && told(frame) && frame.complete ? [{ odds: frame.odds, came: isSharp(frame) ? 1 : 0 }] : []
  );
  if (counted.length === 0) return null;
  const share = sum(counted, ({ came }) => came) / counted.length;
  const bins = [...group(counted, ({ odds }) => Math.min(tenths - 1, Math.floor(odds * tenths)))]
    .sort(([a], [b]) => a - b)
    .map(([, own]): SaidBin => ({
      ...shareOf(
        sum(own, ({ came }) => came),
        own.length
      ),
      said: mean(own, ({ odds }) => odds) ?? 0
    }));
  return {
    bins,
    frames: counted.length,
    brier: mean(counted, ({ odds, came }) => (odds - came) ** 2) ?? 0,
    brierOfAverage: share * (1 - share),
    said: mean(counted, ({ odds }) => odds) ?? 0,
    sharp: shareOf(
      sum(counted, ({ came }) => came),
      counted.length
    )
  };
}

export const ways = ['lens', 'stop', 'distance', 'mode', 'stance', 'person'] as const;
export type FocusingGroup = (typeof ways)[number];

/** Upper ends of the distances that are put together, mm. */
export const distanceEnds = [1000, 2000, 4000, 8000] as const;

export interface HitRate {
  /** What they have in common: a name, an f-number, the index of a range of distances, a word of the setup. */
  readonly key: string;
  readonly sharp: Share;
  /** How many of all of them were kept. */
  readonly kept: number;
  readonly frames: number;
}

/** How often frames were measured sharp, by one thing they share; the most frames first, stops and distances in their order. */
export function hitRates(frames: readonly Recorded[], way: FocusingGroup): HitRate[] {
  if (way === 'person') return byPerson(frames);
  const keyOf = (frame: Recorded): string => {
    switch (way) {
      case 'lens':
        return frame.lens;
      case 'stop':
        return frame.fNumber.toFixed(1);
      case 'distance':
        return String(distanceEnds.filter((end) => end <= frame.distanceMm).length);
      case 'mode':
        return frame.mode;
      case 'stance':
        return frame.stance;
    }
  };
  const rates = [...group(frames, keyOf)].flatMap(([key, own]) => {
    const known = own.filter(told);
    if (known.length === 0) return [];
    const kept = own.filter(({ choice }) => choice === 'keep').length;
    return [{ key, sharp: shareOf(known.filter(isSharp).length, known.length), kept, frames: own.length }];
  });
  const inOrder = way === 'stop' || way === 'distance';
  return rates.sort((a, b) => (inOrder ? Number(a.key) - Number(b.key) : b.frames - a.frames));
}

function byPerson(frames: readonly Recorded[]): HitRate[] {
  const seen = frames.flatMap((frame) => frame.people.map((person) => ({ ...person, kept: frame.choice === 'keep' })));
  return [...group(seen, ({ name }) => name)]
    .flatMap(([key, own]) => {
      const known = own.filter(({ sharp }) => sharp !== null);
      if (known.length === 0) return [];
      const sharp = shareOf(known.filter((one) => one.sharp === true).length, known.length);
      return [{ key, sharp, kept: own.filter(({ kept }) => kept).length, frames: own.length }];
    })
    .sort((a, b) => b.frames - a.frames);
}
