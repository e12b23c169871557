/** The steps of a drill, and the objects they are taken of. */

/** Where the thing focused on is to lie in the picture. */
export type Place = 'middle' | 'left' | 'right' | 'top' | 'bottom';

/** An edge step puts the thing so far off, over half the picture (chosen). */
const asideShare = 0.62;

/** Off the middle by so much, to the right and down, in whatever the halves of the picture are given in. */
export function placeOff(place: Place, halfWide: number, halfHigh: number): { readonly x: number; readonly y: number } {
  switch (place) {
    case 'middle':
      return { x: 0, y: 0 };
    case 'left':
      return { x: -asideShare * halfWide, y: 0 };
    case 'right':
      return { x: asideShare * halfWide, y: 0 };
    case 'top':
      return { x: 0, y: -asideShare * halfHigh };
    case 'bottom':
      return { x: 0, y: asideShare * halfHigh };
  }
}

export interface DrillStep {
  readonly id: string;
  /** Exact. */
  readonly fNumber: number;
  /** The mark to focus on. */
  readonly focusOn: number;
  readonly place: Place;
  readonly upright: boolean;
  /** Turned only, or leaning as one does; null where the camera stays. */
  readonly turning: 'turn' | 'lean' | null;
  /** From how far away, mm; null where all steps are taken from one place. */
  readonly distanceMm: number | null;
  /** Between focusing and the shutter, s; null where it does not matter. */
  readonly waitS: number | null;
  /** The shutter time, s; null where it does not matter. */
  readonly shutterS: number | null;
}

/** A thing with a mark: to the right of the axis, and behind the first, mm. */
export interface DrillObject {
  readonly index: number;
  readonly lateralMm: number;
  readonly depthMm: number;
}

export interface Arranged {
  /** From the lens to the first thing. */
  readonly distanceMm: number;
  readonly spacingMm: number;
  readonly things: readonly DrillObject[];
  readonly steps: readonly DrillStep[];
}
