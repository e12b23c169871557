/** A series of frames of the focus sheet: where this body and lens focus, and how they scatter. */
import { mean as meanOf, variance } from 'd3-array';
import { ownFocus, type OwnKey } from '../call/scatter';
import type { Habits, OwnFocus } from '../habits/habits';
import { mountedLens } from '../kit/mounted';
import type { Lens } from '../kit/schema';
import { exactFNumber, isSameStop, stopsBetween } from '../optics/stops';
import { ownFocusOf, sameFocal } from '../record/groups';
import { learn, type Estimate, type LearnedFocus } from '../record/learn';
import type { FocusShot } from './schema';

export type FocusVerdict = 'few' | 'onTheMark' | 'front' | 'behind' | 'scattered';

export interface FocusResult extends LearnedFocus {
  readonly verdict: FocusVerdict;
  /** Mean from near and from far, µm; null where one of them was not tried. */
  readonly approach: { readonly near: number; readonly far: number; readonly differ: boolean } | null;
  /** The offset at several distances, µm; the bias is a constant only where they agree. */
  readonly byDistance: readonly { readonly distanceMm: number; readonly frames: number; readonly um: number }[];
  readonly changesWithDistance: boolean;
  /** Frames more until the bias is known as well as is wished; 0 where it is. */
  readonly more: number;
}

/** With fewer nothing is said: one frame is the spread as much as the bias (chosen). */
export const leastShots = 6;
/** A bias as large as this share of what is allowed shows nowhere; a spread as large as that is large (chosen). */
const shares = { shows: 1 / 20, scatters: 1 / 2 } as const;
/** How well one may wish to know the bias, as shares of what is allowed. */
export const precisions = { fifth: 1 / 5, tenth: 1 / 10, twentieth: 1 / 20 } as const;
export type Precision = keyof typeof precisions;
/** A bias under test is as good as free: this many times the spread one expects. */
const biasTimes = 20;
const leastSpreadUm = 0.5;
/** Frames the prior is worth: a test of ten says more than a guess (chosen). */
const priorWorth = 2;
/** Standard deviations between two means for them to differ (chosen). */
const apart = 2.5;

/**
 * @param usualUm the spread one expects of this kit; @param allowedUm how far the plane may err before the disc is larger than allowed
 * @param wished how well the bias is to be known
 * @throws RangeError without shots
 */
export function focusResult(
  shots: readonly FocusShot[],
  usualUm: number,
  allowedUm: number,
  wished: Precision = 'fifth'
): FocusResult {
  if (shots.length === 0) throw new RangeError('A test without frames.');
  const spreadUm = Math.max(leastSpreadUm, usualUm);
  const observations = shots.map(({ offsetUm, sdUm }) => ({
    parts: [{ q: offsetUm, tau: sdUm, share: 1 }],
    swayUm: 0
  }));
  const learned = learn(observations, { biasUm: biasTimes * spreadUm, spreadUm, frames: priorWorth });
  const groups = byDistance(shots);
  const changesWithDistance = groups.some((one) => groups.some((other) => differ(one.shots, other.shots)));
  const halfWidth = (learned.bias.high - learned.bias.low) / 2;
  const needed = Math.ceil(shots.length * (halfWidth / (allowedUm * precisions[wished])) ** 2);
  return {
    ...learned,
    verdict: verdictOf(learned, allowedUm, shots.length),
    approach: approachOf(shots),
    byDistance: groups.map(({ distanceMm, shots: own }) => ({ distanceMm, frames: own.length, um: mean(own) })),
    changesWithDistance,
    more: Math.max(0, leastShots - shots.length, needed - shots.length)
  };
}

/** Off only where the interval leaves the mark out and it matters: a twentieth of what is allowed shows nowhere. */
function verdictOf(
  { bias, sd }: { readonly bias: Estimate; readonly sd: Estimate },
  allowedUm: number,
  count: number
): FocusVerdict {
  if (count < leastShots) return 'few';
  const off = (bias.low > 0 || bias.high < 0) && Math.abs(bias.value) > allowedUm * shares.shows;
  if (sd.value > Math.abs(bias.value) && sd.value > allowedUm * shares.scatters) return 'scattered';
  return off ? (bias.value > 0 ? 'behind' : 'front') : 'onTheMark';
}

const um = ({ offsetUm }: FocusShot): number => offsetUm;
const mean = (shots: readonly FocusShot[]): number => meanOf(shots, um) ?? NaN;
/** Of a mean, as a variance; one frame tells none. */
const ofMean = (shots: readonly FocusShot[]): number => (variance(shots, um) ?? Infinity) / shots.length;

const differ = (one: readonly FocusShot[], other: readonly FocusShot[]): boolean =>
  one.length > 2 &&
  other.length > 2 &&
  Math.abs(mean(one) - mean(other)) > apart * Math.sqrt(ofMean(one) + ofMean(other));

function approachOf(shots: readonly FocusShot[]): FocusResult['approach'] {
  const [near, far] = [shots.filter(({ from }) => from === 'near'), shots.filter(({ from }) => from === 'far')];
  if (near.length === 0 || far.length === 0) return null;
  return { near: mean(near), far: mean(far), differ: differ(near, far) };
}

/** Distances further apart than a quarter are two. */
const sameDistance = 1.25;

function byDistance(
  shots: readonly FocusShot[]
): { readonly distanceMm: number; readonly shots: readonly FocusShot[] }[] {
  const groups: FocusShot[][] = [];
  for (const shot of [...shots].sort((a, b) => a.distanceMm - b.distanceMm)) {
    const last = groups[groups.length - 1];
    if (last?.[0] && shot.distanceMm / last[0].distanceMm < sameDistance) last.push(shot);
    else groups.push([shot]);
  }
  return groups.map((own) => ({
    distanceMm: meanOf(own, ({ distanceMm }) => distanceMm) ?? NaN,
    shots: own
  }));
}

interface Setting {
  readonly focalLengthMm: number;
  readonly fNumber: number;
}

/** Stopped down by less a lens counts as wide open, in stops: cameras write the widest in their own ways. */
const wideWithin = 0.6;

const isOneSetting = (a: Setting, b: Setting): boolean =>
  Math.abs(a.focalLengthMm / b.focalLengthMm - 1) <= sameFocal && isSameStop(a.fNumber, b.fNumber);

/** Frames of one focal length and stop together: the ends of a zoom, and stops of one end from the widest. */
export function focusSets<T extends Setting>(frames: readonly T[]): (Setting & { readonly frames: readonly T[] })[] {
  const sets: (Setting & { frames: T[] })[] = [];
  for (const frame of frames) {
    const own = sets.find((set) => isOneSetting(set, frame));
    if (own) own.frames.push(frame);
    else sets.push({ focalLengthMm: frame.focalLengthMm, fNumber: frame.fNumber, frames: [frame] });
  }
  return sets.sort((a, b) =>
    Math.abs(a.focalLengthMm / b.focalLengthMm - 1) > sameFocal
      ? a.focalLengthMm - b.focalLengthMm
      : a.fNumber - b.fNumber
  );
}

/** The widest stop of a lens at a focal length, exactly. */
export const widestAt = (lens: Lens, focalLengthMm: number): number =>
  exactFNumber(mountedLens(lens, [], focalLengthMm).widestFNumber);

export const isWideOpen = (lens: Lens, { focalLengthMm, fNumber }: Setting): boolean =>
  stopsBetween(widestAt(lens, focalLengthMm), fNumber) <= wideWithin;

/**
 * What a test has to say to the habits: one figure for each focal length that was tested wide open, or has been before, and how stopping down
 * moves its plane. A stopped-down set without any wide open says nothing of the lens's focus.
 */
export function figuresOf(
  sets: readonly (Setting & { readonly learned: LearnedFocus })[],
  lens: Lens,
  key: OwnKey,
  habits: Habits,
  nowMs: number
): OwnFocus[] {
  const zoom = lens.shortestMm !== lens.longestMm;
  const ends = focusSets(sets.map((set) => ({ ...set, fNumber: 1 }))).map(({ focalLengthMm }) => focalLengthMm);
  return ends.flatMap((f): OwnFocus[] => {
    const own = sets.filter(({ focalLengthMm }) => Math.abs(focalLengthMm / f - 1) <= sameFocal);
    const focalLengthMm = zoom ? Number(f.toFixed(1)) : null;
    const wide = own.find((set) => isWideOpen(lens, set));
    const before = ownFocus(habits, key, f);
    const known = before && (before.focalLengthMm === null || Math.abs(before.focalLengthMm / f - 1) <= sameFocal);
    const stopShift = known ? before.stopShift : [];
    const base = wide
      ? { ...ownFocusOf({ ...key, learned: wide.learned }, nowMs), focalLengthMm, stopShift }
      : known
        ? before
        : null;
    if (!base) return [];
    const shifts = own
      .filter((set) => !isWideOpen(lens, set))
      .map(({ fNumber, learned }) => ({
        fNumber: Number(fNumber.toFixed(1)),
        um: Number((learned.bias.value - base.biasUm).toFixed(2))
      }));
    // What was found at other stops before stays: it is a difference, whatever the bias is now.
    const kept = stopShift.filter(({ fNumber }) => !shifts.some((one) => isSameStop(one.fNumber, fNumber)));
    return [{ ...base, stopShift: [...kept, ...shifts].sort((a, b) => a.fNumber - b.fNumber), learnedAt: nowMs }];
  });
}
