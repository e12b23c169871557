/** Points spread evenly over the entrance pupil: the lens is looked through from each of them. */

export interface Pupil {
  /** Blades of the diaphragm. */
  readonly blades: number;
  /** 1: round, as wide open; 0: straight blades. */
  readonly roundness: number;
}

/** Stopped down by this many stops the blades are straight (common practice, no source). */
const straightAfterStops = 1.5;

/** The pupil's shape at a stop: round wide open, a polygon stopped down. */
export function pupilAt(blades: number, stopsDown: number): Pupil {
  return { blades, roundness: Math.max(0, Math.min(1, 1 - stopsDown / straightAfterStops)) };
}

/** Distance of the edge from the middle in a direction, as a share of the disc of the same area. */
export function pupilEdge({ blades, roundness }: Pupil, angle: number): number {
  const sector = (2 * Math.PI) / blades;
  const within = ((((angle + sector / 2) % sector) + sector) % sector) - sector / 2;
  // A regular polygon of circumradius R has the area ½ n R² sin(2π/n); a disc of radius 1 has π.
  const circumradius = Math.sqrt((2 * Math.PI) / (blades * Math.sin(sector)));
  const straight = (circumradius * Math.cos(sector / 2)) / Math.cos(within);
  return straight + (1 - straight) * roundness;
}

export interface PupilPoint {
  /** Shares of the pupil's radius. */
  readonly x: number;
  readonly y: number;
}

/** Roberts' sequence for two dimensions (The unreasonable effectiveness of quasirandom sequences, 2018). */
const plastic = 1.324717957244746;

/**
 * The nth point. Any run of them from 0 covers the pupil evenly, so that the picture can be looked at while it refines.
 * Square to disc: Shirley and Chiu, A low distortion map between disk and square (1997).
 */
export function pupilPoint(pupil: Pupil, n: number): PupilPoint {
  const u = (0.5 + (n + 1) / plastic) % 1;
  const v = (0.5 + (n + 1) / (plastic * plastic)) % 1;
  const a = 2 * u - 1;
  const b = 2 * v - 1;
  if (a === 0 && b === 0) return { x: 0, y: 0 };
  const byA = Math.abs(a) > Math.abs(b);
  const radius = byA ? a : b;
  const angle = byA ? (Math.PI / 4) * (b / a) : Math.PI / 2 - (Math.PI / 4) * (a / b);
  const x = radius * Math.cos(angle);
  const y = radius * Math.sin(angle);
  const edge = pupilEdge(pupil, Math.atan2(y, x));
  return { x: x * edge, y: y * edge };
}

/** Fewest and most views a picture is made of. */
export const viewsRange = { least: 64, most: 256 } as const;

/** Views closer together than this on the picture melt into a smooth disc, px. */
const meltsPx = 4.5;

/** Views that make a disc of this diameter (px) smooth. */
export function viewsFor(discPx: number): number {
  const needed = (Math.PI / 4) * (discPx / meltsPx) ** 2;
  return Math.round(Math.min(viewsRange.most, Math.max(viewsRange.least, needed)));
}
