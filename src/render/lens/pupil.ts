/** Points spread over the entrance pupil: the lens is looked through from each of them. */
import type { Lens } from '../../core/kit/schema';

export interface Pupil {
  /** Blades of the diaphragm. */
  readonly blades: number;
  /** 1: round, as wide open; 0: straight blades. */
  readonly roundness: number;
  /** How much brighter the rim of a disc is than its mean, −1 to 1; its middle is as much darker. */
  readonly rim: number;
}

/** Stopped down by this many stops the disc is even (from memory). */
const evenAfterStops = 3;

/** Stopped down by this many stops the blades are straight (common practice, no source). */
const straightAfterStops = 1.5;

/** From memory: what "soft" and "hard" mean, wide open; stopped down the blades cut the uneven rim away. */
const rimLight = { soft: -0.6, even: 0, hard: 0.6 } as const;

/** The pupil's shape at a stop: round wide open, a polygon stopped down. */
export function pupilAt(blades: number, stopsDown: number, rim: Lens['rim'] = 'even'): Pupil {
  const open = Math.max(0, 1 - stopsDown / evenAfterStops);
  return { blades, rim: rimLight[rim] * open, roundness: Math.max(0, Math.min(1, 1 - stopsDown / straightAfterStops)) };
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
 * Where a ray goes so that its disc is brighter or darker at the rim: light 1 + k(2r² − 1) at radius r has the share
 * q + k(q² − q) within q = r², which an even disc has within u; so k q² + (1 − k) q = u.
 */
function rimmed(radius: number, k: number): number {
  if (k === 0) return radius;
  const u = radius * radius;
  return Math.sqrt((k - 1 + Math.sqrt((1 - k) ** 2 + 4 * k * u)) / (2 * k));
}

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
  const radius = Math.sign(byA ? a : b) * rimmed(Math.abs(byA ? a : b), pupil.rim);
  const angle = byA ? (Math.PI / 4) * (b / a) : Math.PI / 2 - (Math.PI / 4) * (a / b);
  const x = radius * Math.cos(angle);
  const y = radius * Math.sin(angle);
  const edge = pupilEdge(pupil, Math.atan2(y, x));
  return { x: x * edge, y: y * edge };
}

/** Fewest and most views a picture is made of. */
export const viewsRange = { least: 32, most: 256 } as const;

/** Views closer together than this on the picture melt into a smooth disc, px. */
const meltsPx = 4.5;

/** Views that make a disc of this diameter (px) smooth. */
export function viewsFor(discPx: number): number {
  const needed = (Math.PI / 4) * (discPx / meltsPx) ** 2;
  return Math.round(Math.min(viewsRange.most, Math.max(viewsRange.least, needed)));
}
