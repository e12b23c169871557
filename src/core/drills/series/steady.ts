/** How steady somebody holds the camera: from how long the tracks are that marks leave at one shutter time after another. */
import { group, sum } from 'd3-array';
import { even, normalised, ofLogs, type Estimate } from '../../record/learn';
import { normalCdf } from '../../maths/normal';

/** One frame: the shutter time, and the disc its shake is as bad as; null where no track was to be seen. */
export interface HandheldFrame {
  readonly shutterS: number;
  /** mm on the sensor. */
  readonly discMm: number | null;
  /** A smaller one would not have been seen, mm. */
  readonly leastMm: number;
}

export interface Steady {
  /** The disc at 1/(focal length), as a share of the customary one: what the habits call shake, less what a stabiliser takes. */
  readonly share: Estimate;
  /** The shutter time at which it is as large as what is allowed, s, and where that lies nine times in ten. */
  readonly showsFromS: Estimate;
  readonly byTime: readonly {
    readonly shutterS: number;
    readonly times: number;
    /** Of those, in which a track was to be seen. */
    readonly seen: number;
  }[];
}

/** With fewer frames, or fewer of them with a track to be seen, nothing is said (chosen). */
export const leastHeld = { frames: 6, seen: 3 } as const;
/** As one expects it: a normal of the logarithm, a factor of two and a half either way (from memory). */
const priorSd = 0.9;
/** The scatter of one time from the next, as a deviation of the logarithm (from memory). */
const scatter = { from: 0.15, to: 1, count: 18 } as const;
/** Places tried, and how many deviations away the last lie (chosen: finer moves an end by less than a hundredth). */
const steps = { count: 81, sds: 3.5 } as const;

/**
 * Tracks grow with the time; about that each is drawn, as a normal of its logarithm, with a scatter of its own that is not known. One too short to be
 * seen says that it was shorter.
 *
 * @param usual what one expects of the share
 * @param atShareOne the disc of somebody whose share is one, after a second, mm
 * @returns null with too few
 */
export function steadyOf(
  held: readonly HandheldFrame[],
  usual: number,
  atShareOne: number,
  allowedMm: number
): Steady | null {
  const seen = held.filter(({ discMm }) => discMm !== null).length;
  if (held.length < leastHeld.frames || seen < leastHeld.seen) return null;
  const offsets = even(-steps.sds * priorSd, steps.sds * priorSd, steps.count);
  const places = offsets.map((off) => Math.log(usual) + off);
  const sds = even(Math.log(scatter.from), Math.log(scatter.to), scatter.count).map(Math.exp);
  const logs = places.flatMap((place, row) =>
    sds.map((sd) => {
      const prior = -(((offsets[row] ?? 0) / priorSd) ** 2) / 2;
      return held.reduce((total, { shutterS, discMm, leastMm }) => {
        const expected = place + Math.log(atShareOne * shutterS);
        if (discMm === null) return total + Math.log(Math.max(1e-12, normalCdf((Math.log(leastMm) - expected) / sd)));
        return total - ((Math.log(discMm) - expected) / sd) ** 2 / 2 - Math.log(sd);
      }, prior);
    })
  );
  const shares = normalised(logs);
  const share = ofLogs(
    places,
    places.map((_, row) => sum(sds, (_sd, column) => shares[row * sds.length + column] ?? 0))
  );
  const shows = (of: number) => allowedMm / (of * atShareOne);
  return {
    share,
    showsFromS: { value: shows(share.value), low: shows(share.high), high: shows(share.low) },
    byTime: [...group(held, ({ shutterS }) => shutterS)]
      .sort(([a], [b]) => a - b)
      .map(([shutterS, own]) => ({
        shutterS,
        times: own.length,
        seen: own.filter(({ discMm }) => discMm !== null).length
      }))
  };
}
