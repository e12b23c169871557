/** How many frames to shoot. */
import { allEyesOpen } from '../optics/blinks';
import type { Habits } from '../habits/habits';
import type { FramesNeeded } from './plan';

/** Beyond so many frames no single one is waited for (common practice, no source). */
export const mostFrames = 20;

/** Frames so that one that succeeds with chance `odds` is as likely among them as `wanted`: 1 − (1 − P)^n. Infinity when P is 0. */
export function framesFor(odds: number, wanted: number): number {
  if (odds >= wanted) return 1;
  if (odds <= 0) return Infinity;
  return Math.ceil(Math.log(1 - wanted) / Math.log(1 - odds));
}

/**
 * In one and the same frame everybody must be sharp and have their eyes open, which are independent: the chances multiply.
 * Each frame is focused anew; a frame that only repeats the focus of the one before repeats its error too.
 */
export function framesNeeded(
  { blinkEveryS, blinkS }: Habits,
  odds: number,
  people: number,
  exposureS: number
): FramesNeeded {
  const eyesOpen = allEyesOpen({ everyS: blinkEveryS, lastsS: blinkS }, people, exposureS);
  const within = (wanted: number) => {
    const frames = framesFor(odds * eyesOpen, wanted);
    return frames <= mostFrames ? frames : null;
  };
  return { eyesOpen, for95: within(0.95), for99: within(0.99) };
}

/**
 * Frames so that each of `people` is sharp with open eyes in at least one of them, nineteen times in twenty, taking
 * everybody's chance to be that of the one most at risk: (1 − (1 − p)^n)^people ≥ 0.95. Null beyond a hundred.
 */
export function framesToCombine({ blinkEveryS, blinkS }: Habits, weakest: number, people: number): number | null {
  const each = weakest * allEyesOpen({ everyS: blinkEveryS, lastsS: blinkS }, 1, 0);
  const frames = framesFor(each, 0.95 ** (1 / Math.max(1, people)));
  return frames <= 100 ? frames : null;
}
