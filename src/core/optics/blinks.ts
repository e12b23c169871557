/**
 * Eyes open in one frame. A person blinks now and then, each blink lasts a while, and a frame of exposure t catches one
 * with the chance (duration + t)/interval; n people are all open with the n-th power of the rest
 * (Svenson and Barnes, *Blink-free photos, guaranteed*, Velocity, CSIRO 2006).
 */
export interface Blinking {
  /** From one blink of a person to the next, seconds. */
  readonly everyS: number;
  /** A blink lasts, seconds. */
  readonly lastsS: number;
}

/** Probability, 0 to 1, that nobody of `people` blinks in a frame of `exposureS` seconds. */
export function allEyesOpen({ everyS, lastsS }: Blinking, people: number, exposureS: number): number {
  return Math.max(0, 1 - (lastsS + exposureS) / everyS) ** people;
}
