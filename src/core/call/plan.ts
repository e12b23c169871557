/** What a plan says: plain data, serialisable. Lengths in mm from the lens unless a name says otherwise. */
import type { Stop } from '../optics/stops';
import type { Wish } from '../setup/schema';
import type { PointRole, Subject } from '../setup/scene';
import type { LightAtStop } from './light';

/** Where the focus is put. */
export interface Target {
  /** Absent when the focus is set to a distance. */
  readonly subjectId: string | null;
  readonly feature: string | null;
  readonly role: PointRole | null;
  readonly focusDistanceMm: number;
}

/** One face's or thing's point at one stop. */
export interface PointSharpness {
  /** Total equivalent blur disc over the permissible one. */
  readonly ratio: number;
}

export interface BackgroundAtStop {
  /** Detail smaller than this is lost there, mm in the scene. */
  readonly lostDetailMm: number;
  /** Blur disc on the sensor as a share of the frame's height. */
  readonly shareOfFrameHeight: number;
  readonly ratio: number;
  readonly met: boolean;
  /** How far the wish is missed, in stops; 0 when met. */
  readonly shortfallStops: number;
}

/** How many frames to shoot; null when no number is enough. */
export interface FramesNeeded {
  readonly for95: number | null;
  readonly for99: number | null;
  /** For everybody's eyes to be open in one. */
  readonly forBlinks: number;
  /** The larger need, at 95 %. */
  readonly toShoot: number | null;
}

/** Everything about one f-number. */
export interface StopPlan {
  readonly stop: Stop;
  readonly target: Target;
  /** Where the second frame is focused, when two are combined. */
  readonly secondTarget: Target | null;
  /** Settings, and what the light lacks. */
  readonly light: LightAtStop;
  readonly frames: FramesNeeded;
  /** Disc left for defocus, mm; 0 when other causes use it all. */
  readonly allowanceMm: number;
  /** Lens, diffraction, pixels and camera shake together over the permissible disc. */
  readonly lensRatio: number;
  /** The same causes one by one, each over the permissible disc. */
  readonly causes: {
    readonly lens: number;
    readonly diffraction: number;
    readonly pixels: number;
    readonly shake: number;
  };
  /** Standard deviations along the axis, mm: where the focus lands, and how far the photographer drifts. */
  readonly spread: { readonly focusMm: number; readonly holdMm: number };
  readonly nearMm: number;
  /** null: to infinity. */
  readonly farMm: number | null;
  readonly odds: number;
  /** Worst required point among those that must be sharp. */
  readonly worst: { readonly subjectId: string; readonly role: PointRole; readonly ratio: number };
  readonly facesHold: boolean;
  /** By subject and point, in the order of `Plan.subjects`. */
  readonly sharpness: readonly (readonly PointSharpness[])[];
  /** In the order of `Plan.backgrounds`. */
  readonly backgrounds: readonly BackgroundAtStop[];
}

/** What sets one end of the window. */
export type Bound =
  | { readonly kind: 'lens' }
  | { readonly kind: 'point'; readonly subjectId: string; readonly role: PointRole }
  | { readonly kind: 'odds'; readonly subjectId: string }
  | { readonly kind: 'background'; readonly backgroundId: string }
  | { readonly kind: 'lensBlur' };

/** Two wishes that no stop grants together, or one that none grants at all. */
export type Conflict =
  | { readonly kind: 'facesUnreachable'; readonly because: 'depth' | 'odds' | 'criterion'; readonly bound: Bound }
  | {
      readonly kind: 'facesAgainstBackground';
      /** First stop that holds the faces. */
      readonly facesFrom: number;
      readonly bound: Bound;
      readonly backgroundId: string;
      /** The stop nearest to `facesFrom` at which the background would be right. */
      readonly backgroundAt: number;
    }
  | { readonly kind: 'backgroundUnreachable'; readonly backgroundId: string }
  | { readonly kind: 'backgroundAgainstBackground'; readonly backgroundId: string; readonly otherId: string };

export interface Plan {
  readonly kind: 'plan';
  readonly lensName: string;
  readonly bodyName: string;
  readonly focalLengthMm: number;
  /** Lens to subject line. */
  readonly distanceMm: number;
  /** Scene framed at the subject line. */
  readonly framedWidthMm: number;
  readonly framedHeightMm: number;
  /** Permissible blur disc C, mm on the sensor. */
  readonly permissibleDiscMm: number;
  readonly oddsWanted: number;
  readonly subjects: readonly Subject[];
  readonly backgrounds: readonly {
    readonly id: string;
    readonly name: string;
    readonly wish: Wish;
    readonly detailMm: number;
    readonly depthMm: number;
  }[];
  readonly stops: readonly StopPlan[];
  /** Indices into `stops`, inclusive; null when no stop grants everything. */
  readonly window: { readonly first: number; readonly last: number } | null;
  /** What sets the wide end, and what the narrow end. */
  readonly lower: Bound;
  readonly upper: Bound;
  /** The stop the style picks, and the one in use. */
  readonly recommended: number;
  readonly selected: number;
  readonly conflict: Conflict | null;
  /** The full-frame lens that would give the same view and blur in one frame, at the stop in use; for stitched views. */
  readonly stitched: { readonly focalLengthMm: number; readonly fNumber: number } | null;
  /** Who is most likely to be missed at the stop in use, and how far they sway (standard deviation, mm). */
  readonly weakest: { readonly subjectId: string; readonly swayMm: number };
  /** Set when the distance asked for is more than the place allows. */
  readonly beyondRoomMm: number;
}

/** Why nothing can be planned. */
export type NoPlanReason =
  | { readonly code: 'unknownBody'; readonly id: string }
  | { readonly code: 'unknownLens'; readonly id: string }
  | { readonly code: 'nothingRequired' }
  | { readonly code: 'behindCamera'; readonly name: string }
  | { readonly code: 'tooClose'; readonly closestFocusMm: number; readonly nearestMm: number };

export interface NoPlan {
  readonly kind: 'noPlan';
  readonly reason: NoPlanReason;
}
