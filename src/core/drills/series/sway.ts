/** How far somebody sways between focusing and the shutter, from planes that were focused and released at once, and later and later. */
import { group, sum } from 'd3-array';
import { even, normalised, ofLogs, type Estimate } from '../../record/learn';
import { sdWithInterval } from './lean';

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
  /** Scatter at each wait, mm; of waits with two frames or more. */
  readonly byWait: readonly { readonly waitS: number; readonly spread: Estimate; readonly times: number }[];
}

/** With fewer at once, or after a wait, nothing is said (chosen). */
export const leastWaited = 4;
/** Sway and focus as one expects them, as a normal of the logarithm (from memory: a factor of two and a half either way). */
const priorSd = 0.9;
/** Places tried for each, and how many deviations away the last lie (chosen: finer moves an end by less than a hundredth). */
const steps = { count: 61, sds: 3.2 } as const;

/**
 * The mean is free; sway and focus are each as likely, beforehand, as a wide normal of their logarithms about the usual has it. Sway is zero at once, so that what
 * scatters there is the focus and not the photographer.
 *
 * @param usual after one second, and of the focus, mm
 * @param growsForS sway stops growing after so long
 * @returns null with too few
 */
export function estimateSway(
  waited: readonly Waited[],
  usual: { readonly swayMm: number; readonly focusMm: number },
  growsForS: number
): Swayed | null {
  const atOnce = waited.filter(({ waitS }) => waitS === 0).length;
  if (atOnce < leastWaited || waited.length - atOnce < leastWaited) return null;
  const offsets = even(-steps.sds * priorSd, steps.sds * priorSd, steps.count);
  const about = (mm: number) => offsets.map((off) => Math.log(mm) + off);
  const [sways, focuses] = [about(usual.swayMm), about(usual.focusMm)];
  const prior = (index: number) => -(((offsets[index] ?? 0) / priorSd) ** 2) / 2;
  const logs = sways.flatMap((s, row) =>
    focuses.map(
      (o, column) => prior(row) + prior(column) + logLikelihood(waited, Math.exp(2 * s), Math.exp(2 * o), growsForS)
    )
  );
  const shares = normalised(logs);
  const places = Array.from({ length: steps.count }, (_, index) => index);
  const share = (row: number, column: number) => shares[row * steps.count + column] ?? 0;
  return {
    sway: ofLogs(
      sways,
      places.map((row) => sum(places, (column) => share(row, column)))
    ),
    focus: ofLogs(
      focuses,
      places.map((column) => sum(places, (row) => share(row, column)))
    ),
    byWait: [...group(waited, ({ waitS }) => waitS)]
      .filter(([, own]) => own.length > 1)
      .sort(([a], [b]) => a - b)
      .map(([waitS, own]) => ({ waitS, spread: sdWithInterval(own.map(({ offMm }) => offMm)), times: own.length }))
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
