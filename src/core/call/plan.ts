/** What a plan says: plain data, serialisable. Lengths in mm from the lens unless a name says otherwise. */
import type { Vector } from '../maths/vector';
import type { Stop } from '../optics/stops';
import type { FocusPoint } from '../setup/focusPoint';
import type { Wish } from '../setup/schema';
import type { PointRole, Subject } from '../setup/scene';
import type { Met } from '../setup/lineOfSight';
import type { LightAtStop } from './light';

/** Where the focus is put. */
export interface Target {
  /** Absent when the focus is set to a distance. */
  readonly subjectId: string | null;
  readonly feature: string | null;
  readonly role: PointRole | null;
  readonly focusDistanceMm: number;
  /** Where it lies, scene coordinates, mm; null for a distance. */
  readonly position: Vector | null;
  /** The body's focus point that lies on it; null where none does, and for a distance. */
  readonly point: FocusPoint | null;
  /** Shift of the plane, mm behind the target, where the camera is turned after focusing: asked for, or no point reaches. */
  readonly recomposed: { readonly turnMm: number; readonly leanMm: number; readonly asked: boolean } | null;
}

/** One face's or thing's point at one stop. */
export interface PointSharpness {
  /** Total equivalent blur disc over the circle of confusion. */
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

/** One place where focus may land. */
export interface Landing {
  readonly kind: Met['kind'];
  readonly id: string;
  readonly part: Met['part'] | 'target';
  /** Depth from the lens, mm. */
  readonly depth: number;
  readonly chance: number;
}

/** How many frames to shoot, refocusing for each, so that one of them is sharp with all eyes open. */
export interface FramesNeeded {
  /** Chance that nobody blinks in a frame. */
  readonly eyesOpen: number;
  /** For 95% and 99%; null when more than `call/frames.mostFrames` would be needed. */
  readonly for95: number | null;
  readonly for99: number | null;
}

/** Everything about one f-number. */
export interface StopPlan {
  readonly stop: Stop;
  readonly target: Target;
  /** Where the second frame is focused, when two are combined. */
  readonly secondTarget: Target | null;
  /** Where autofocus may land with the target as its aim, the likeliest first; together 1. */
  readonly landings: readonly Landing[];
  /** Settings, and what the light lacks. */
  readonly light: LightAtStop;
  readonly frames: FramesNeeded;
  /** Where the plane of focus lies at release, on average, mm from the lens; and in the second frame. */
  readonly planeMm: number;
  readonly secondPlaneMm: number | null;
  /** What stopping down to here has been measured to move the plane, µm on the sensor; positive behind. */
  readonly shiftUm: number;
  /** The same plane among people drawn where they stood when they were focused on: they have come nearer since. */
  readonly drawnFocusMm: number;
  /** By how much the odds are better than on the best place one would rather focus on; 0 on such a place. */
  readonly gain: number;
  /** Disc left for defocus, mm; 0 when other causes use it all. */
  readonly allowanceMm: number;
  /** Lens, diffraction, pixels and camera shake together over the circle of confusion. */
  readonly lensRatio: number;
  /** The same causes one by one, each over the circle of confusion. */
  readonly causes: {
    readonly lens: number;
    readonly diffraction: number;
    readonly pixels: number;
    readonly shake: number;
  };
  /** Who moves most across the picture among those who must be sharp, and that blur over the circle of confusion. */
  readonly movement: { readonly subjectId: string; readonly ratio: number } | null;
  /** For whom the lens is softest where they stand, and its disc there with all others but defocus; null where it was not measured off the axis. */
  readonly edge: { readonly subjectId: string; readonly ratio: number } | null;
  /** Standard deviations along the axis, mm: where the focus lands, how far the photographer drifts, and leans. */
  readonly scatter: { readonly focusMm: number; readonly holdMm: number; readonly leanMm: number };
  readonly nearMm: number;
  /** null: to infinity. */
  readonly farMm: number | null;
  /** Keeper rate over all that autofocus may land on. */
  readonly odds: number;
  /** Keeper rate where focus lands as meant: stop and target follow from this one. */
  readonly oddsOnTarget: number;
  /** Worst required point among those that must be sharp. */
  readonly worst: { readonly subjectId: string; readonly role: PointRole; readonly ratio: number };
  /** Its whole blur, the lens's own included, in pixels of the body. */
  readonly worstPixels: number;
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
  | { readonly kind: 'lensBlur' }
  /** The lens is too soft so far off its axis. */
  | { readonly kind: 'lensEdge'; readonly subjectId: string }
  | { readonly kind: 'shake' }
  /** It cannot be exposed within the ISO limit, or at the fastest shutter time. */
  | { readonly kind: 'light' }
  | { readonly kind: 'movement'; readonly subjectId: string };

/** Why no stop holds the faces; `light`: some would, at more ISO than a closer look than print is worth. */
type Because = 'depth' | 'odds' | 'criterion' | 'shake' | 'movement' | 'light';

/** Two wishes that no stop grants together, or one that none grants at all. */
export type Conflict =
  | { readonly kind: 'facesUnreachable'; readonly because: Because; readonly bound: Bound }
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
  readonly pupilMagnification: number;
  /** How the lens's surface of sharp focus was measured to bend, 1/m; null where it was not. */
  readonly fieldPerM: number | null;
  /** Lens to subject line. */
  readonly distanceMm: number;
  /** Scene framed at the subject line. */
  readonly framedWidthMm: number;
  readonly framedHeightMm: number;
  /** Permissible blur disc C, mm on the sensor. */
  readonly circleOfConfusionMm: number;
  readonly oddsWanted: number;
  /**
   * Where faces are looked at more closely than a standard print: the first stop that would hold in one, and what the stop in use
   * would give there.
   */
  readonly inPrint: {
    readonly from: number | null;
    readonly odds: number;
    readonly for95: FramesNeeded['for95'];
    /** From where to where it is sharp, mm from the lens; `farMm` null for infinity. */
    readonly zone: { readonly nearMm: number; readonly farMm: number | null };
  } | null;
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
  /** Backgrounds whose wish no stop that holds the faces comes within a stop of: let go before the style chooses. */
  readonly letGo: readonly string[];
  /** Who must be sharp but is not in the picture, and who is hidden by somebody or something: warned about. */
  readonly outOfFrame: readonly string[];
  readonly hidden: readonly string[];
  /** Whose head a wide lens draws longest, and by how much; null where nobody would notice. */
  readonly stretched: { readonly subjectId: string; readonly factor: number } | null;
  /** The full-frame lens that would give the same view and blur in one frame, at the stop in use; for stitched views. */
  readonly stitched: { readonly focalLengthMm: number; readonly fNumber: number } | null;
  /** Who is most likely to be missed at the stop in use, their own odds, and how far they sway (standard deviation, mm). */
  readonly weakest: { readonly subjectId: string; readonly odds: number; readonly swayMm: number };
  /** Frames to combine at the stop in use so that each person is sharp, eyes open, in one: where no single frame will do. */
  readonly framesToCombine: number | null;
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

export function noPlan(reason: NoPlanReason): NoPlan {
  return { kind: 'noPlan', reason };
}

/** Whether a stage of a plan came to an end there. */
export const isNoPlan = (found: object): found is NoPlan => 'kind' in found && found.kind === 'noPlan';
