/** How far somebody sways between focusing and the shutter, from planes that were focused and released at once, and later and later. */
import { group, mean, variance } from 'd3-array';
import jstat from 'jstat';
import { even, normalised, ofLogs, type Estimate } from '../record/learn';

/** One frame: how far its plane lies behind what was focused on, mm, and how long was waited. */
export interface Waited {
  readonly offMm: number;
  readonly waitS: number;
}

export interface Swayed {
  /** After one second, mm, as a standard deviation: it grows with the root of the time. */
  readonly sway: Estimate;
  /** What scatters without any wait: the focus itself, mm. */
  readonly focus: Estimate;
  /** Scatter at each wait, mm, about the mean of all. */
  readonly byWait: readonly { readonly waitS: number; readonly spread: Estimate; readonly times: number }[];
  readonly times: number;
}

/** With fewer at once, or after a wait, nothing is said (chosen). */
export const leastWaited = 4;
/** Sway and focus as one expects them, as a normal of the logarithm (from memory: a factor of two and a half either way). */
const priorSd = 0.9;
const steps = { count: 61, sds: 3.2 } as const;

/**
 * The mean is free; sway and focus are each as likely, beforehand, as a wide normal of their logarithms about the usual has it. Sway is zero at once, so that what
 * scatters there is the focus and not the photographer.
 *
 * @param usual after one second, and of the focus, mm
 * @param growsForS sway stops growing after so long
 * @returns null with too few
 */
export function swayOf(
  waited: readonly Waited[],
  usual: { readonly swayMm: number; readonly focusMm: number },
  growsForS: number
): Swayed | null {
  const atOnce = waited.filter(({ waitS }) => waitS === 0).length;
  if (atOnce < leastWaited || waited.length - atOnce < leastWaited) return null;
  const offsets = even(-steps.sds * priorSd, steps.sds * priorSd, steps.count);
  const [sways, focuses] = [usual.swayMm, usual.focusMm].map((mm) => offsets.map((off) => Math.log(mm) + off));
  if (!sways || !focuses) return null;
  const prior = (index: number) => -(((offsets[index] ?? 0) / priorSd) ** 2) / 2;
  const logs = sways.flatMap((s, row) =>
    focuses.map(
      (o, column) => prior(row) + prior(column) + logLikelihood(waited, Math.exp(2 * s), Math.exp(2 * o), growsForS)
    )
  );
  const shares = normalised(logs);
  const summed = (of: (index: number) => number) => {
    const sums = new Array<number>(steps.count).fill(0);
    for (const [index, share] of shares.entries()) sums[of(index)] = (sums[of(index)] ?? 0) + share;
    return sums;
  };
  const all = mean(waited, ({ offMm }) => offMm) ?? 0;
  return {
    sway: ofLogs(
      sways,
      summed((index) => Math.floor(index / steps.count))
    ),
    focus: ofLogs(
      focuses,
      summed((index) => index % steps.count)
    ),
    byWait: [...group(waited, ({ waitS }) => waitS)]
      .sort(([a], [b]) => a - b)
      .map(([waitS, own]) => ({ waitS, spread: spreadAbout(own.map(({ offMm }) => offMm - all)), times: own.length })),
    times: waited.length
  };
}

/** Of normals of one unknown mean (integrated out), each with a variance of its own. */
function logLikelihood(waited: readonly Waited[], sway2: number, focus2: number, growsForS: number): number {
  let [weights, weighted, squares, logs] = [0, 0, 0, 0];
  for (const { offMm, waitS } of waited) {
    const weight = 1 / (focus2 + sway2 * Math.min(waitS, growsForS));
    weights += weight;
    weighted += weight * offMm;
    squares += weight * offMm * offMm;
    logs += Math.log(weight);
  }
  return (logs - Math.log(weights) - (squares - (weighted * weighted) / weights)) / 2;
}

/** Nine tenths by chi-squared. */
function spreadAbout(offs: readonly number[]): Estimate {
  const n = offs.length;
  const square = variance(offs) ?? 0;
  const at = (share: number) => Math.sqrt(((n - 1) * square) / jstat.chisquare.inv(share, n - 1));
  return n < 2 ? { value: NaN, low: 0, high: Infinity } : { value: Math.sqrt(square), low: at(0.95), high: at(0.05) };
}
