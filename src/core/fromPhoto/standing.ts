/** Where the camera was held and how it was tilted, by usual heights of eyes. */
import { sum } from 'd3-array';
import { normalDensity } from '../maths/normal';
import { radians } from '../maths/vector';
import { eyeHeight } from '../people/anatomy';
import { defaultStatureMm } from '../setup/defaults';

/** Someone from the camera's place, along a level line of sight: mm ahead and, seen with the camera level, the angle above its axis. */
export interface Sighted {
  readonly straightMm: number;
  /** Above the camera's axis, radians. */
  readonly above: number;
  /** The chance that it is a child, 0 to 1. */
  readonly child: number;
}

export interface CameraStand {
  readonly heightMm: number;
  /** Upwards, degrees. */
  readonly tiltDeg: number;
}

/** How eyes are usually high, mm (common practice, no source): share of people, mean, spread. */
const usual = [
  { share: 0.7, mean: eyeHeight(defaultStatureMm.adult, 'standing'), sd: 90 },
  { share: 0.17, mean: eyeHeight(defaultStatureMm.adult, 'seated'), sd: 70 },
  // On steps, kneeling, anything.
  { share: 0.13, mean: 1500, sd: 450 }
] as const;
const usualChild = [{ share: 1, mean: eyeHeight(defaultStatureMm.child, 'standing'), sd: 200 }] as const;

/** Cameras are held about here, and about level (common practice, no source). */
const held = { heightMm: { mean: 1550, sd: 220 }, tiltDeg: { mean: 0, sd: 6 } } as const;
const step = { heightMm: 50, tiltDeg: 0.5 } as const;
const most = { heightMm: 700, tiltDeg: 20 } as const;

const chance = (of: readonly { share: number; mean: number; sd: number }[], value: number): number =>
  sum(of, ({ share, mean, sd }) => (share / sd) * normalDensity((value - mean) / sd));

/** Height of the eyes over the ground the camera stands on, mm. */
export const eyesOver = ({ straightMm, above }: Pick<Sighted, 'straightMm' | 'above'>, stand: CameraStand): number =>
  stand.heightMm + straightMm * Math.sin(above + radians(stand.tiltDeg));

/** The likeliest height and tilt. @param tiltDeg where the photo says it */
export function cameraStand(people: readonly Sighted[], tiltDeg: number | null = null): CameraStand {
  let best = { heightMm: held.heightMm.mean as number, tiltDeg: tiltDeg ?? 0 };
  let score = -Infinity;
  const tilts = tiltDeg === null ? steps(held.tiltDeg.mean, most.tiltDeg, step.tiltDeg) : [tiltDeg];
  for (const heightMm of steps(held.heightMm.mean, most.heightMm, step.heightMm))
    for (const tilt of tilts) {
      const stand = { heightMm, tiltDeg: tilt };
      const likely =
        sum(people, (person) => {
          const over = eyesOver(person, stand);
          return Math.log((1 - person.child) * chance(usual, over) + person.child * chance(usualChild, over) + 1e-9);
        }) -
        0.5 * ((heightMm - held.heightMm.mean) / held.heightMm.sd) ** 2 -
        0.5 * ((tilt - held.tiltDeg.mean) / held.tiltDeg.sd) ** 2;
      if (likely > score) [score, best] = [likely, stand];
    }
  return best;
}

function steps(middle: number, reach: number, by: number): number[] {
  const count = Math.round(reach / by);
  return Array.from({ length: 2 * count + 1 }, (_, index) => middle + (index - count) * by);
}

/** The chance that it is a child by the height of its eyes, before which it was `prior`. */
export function childBy(eyesMm: number, prior: number): number {
  const child = prior * chance(usualChild, eyesMm);
  return child / (child + (1 - prior) * chance(usual, eyesMm) + 1e-12);
}
