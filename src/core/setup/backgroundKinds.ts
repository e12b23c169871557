/**
 * The kinds of background: what each is called, what autofocus and the meter find in it, and how much of its plane it fills.
 * One entry a kind; only how it is painted stands with the renderer (`render/scene`). Figures are from memory.
 */
import type { Vector } from '../maths/vector';

/** A place on the plane of a background, as the lens sees it. */
export interface PlaceOnBackground {
  readonly inFront: boolean;
  /** From its middle to the side, and above the floor, mm. */
  readonly aside: number;
  readonly y: number;
  /** Above the lens, as a share of half the height that is seen there. */
  readonly over: number;
  readonly halfWidth: number;
  readonly detailMm: number;
}

interface BackgroundKind {
  /** What it is called until somebody names it. */
  readonly noun: string;
  /** What it is called where one chooses. */
  readonly choice: string;
  /** What autofocus finds to hold on to, 0 to 1. */
  readonly contrast: number;
  /** It makes its own light: low light takes nothing from it. */
  readonly lit?: true;
  readonly reflectance: number;
  /** So many stops over what the room's light makes of the rest: windows, skies, bulbs. */
  readonly shinesStops?: number;
  /** The share of a line that it takes where the line crosses its plane. */
  readonly cover: (place: PlaceOnBackground) => number;
}

const all = (): number => 1;
const upTo4m = ({ y, inFront, aside }: PlaceOnBackground): number => (y < 4200 && (!inFront || aside < 1000) ? 0.5 : 0);

export const backgroundKinds = {
  plain: { noun: 'wall', choice: 'a plain wall', contrast: 0.04, reflectance: 0.45, cover: all },
  foliage: {
    noun: 'leaves',
    choice: 'leaves',
    contrast: 0.7,
    reflectance: 0.1,
    cover: ({ inFront, aside, over, halfWidth }) => {
      if (!inFront) return 1;
      return aside < 0.65 * halfWidth && over < -0.3 && over > -1.05 ? 0.5 : 0;
    }
  },
  trunks: { noun: 'trunks', choice: 'trunks', contrast: 0.6, reflectance: 0.12, cover: upTo4m },
  arch: {
    noun: 'iron arch',
    choice: 'an iron arch',
    contrast: 0.8,
    reflectance: 0.15,
    cover: ({ aside, y }) => (aside < 1500 && y < 3200 ? 0.3 : 0)
  },
  columns: { noun: 'columns', choice: 'columns', contrast: 0.6, reflectance: 0.2, cover: upTo4m },
  panes: {
    noun: 'windows',
    choice: 'a window wall',
    contrast: 0.6,
    reflectance: 0.5,
    shinesStops: 1.5,
    cover: ({ inFront }) => (inFront ? 0.15 : 1)
  },
  brick: { noun: 'brick wall', choice: 'bricks', contrast: 0.7, reflectance: 0.18, cover: all },
  lettering: {
    noun: 'lettering',
    choice: 'lettering',
    contrast: 1,
    reflectance: 0.4,
    cover: ({ aside, y, detailMm }) => {
      const wide = Math.max(detailMm * 40, 1600);
      return aside < wide / 2 && y > 900 && y < 900 + wide * 0.62 ? 1 : 0;
    }
  },
  lights: {
    noun: 'bulbs',
    choice: 'strings of bulbs',
    contrast: 1,
    lit: true,
    reflectance: 1,
    shinesStops: 3,
    cover: () => 0.06
  },
  candles: {
    noun: 'candles',
    choice: 'candles',
    contrast: 1,
    lit: true,
    reflectance: 1,
    shinesStops: 3,
    cover: ({ aside, over, halfWidth }) => (aside < 0.57 * halfWidth && over < -0.45 && over > -0.98 ? 0.12 : 0)
  },
  people: {
    noun: 'guests',
    choice: 'people',
    contrast: 0.7,
    reflectance: 0.18,
    cover: ({ aside, y }) => (aside < 2300 && y > 0 && y < 1700 ? 0.6 : 0)
  },
  horizon: { noun: 'shore', choice: 'a far shore', contrast: 0.4, reflectance: 0.4, shinesStops: 1.5, cover: all }
} as const satisfies Readonly<Record<string, BackgroundKind>>;

/** By name, as they are stored under `surface`. */
export type Surface = keyof typeof backgroundKinds;
export const surfaces = Object.keys(backgroundKinds) as [Surface, ...Surface[]];

export const backgroundKind = (surface: Surface): BackgroundKind => backgroundKinds[surface];

interface OnPlane {
  readonly surface: Surface;
  readonly depthMm: number;
  readonly lateralMm: number;
  readonly detailMm: number;
}

/**
 * Share of a line that a background takes where it crosses its plane: how much of its drawn extent is there.
 *
 * @param at where it crosses; @param half what is seen there to the side and up from the axis, mm
 */
export function coverAt(
  { surface, depthMm, lateralMm, detailMm }: OnPlane,
  at: Vector,
  lens: Vector,
  half: { readonly width: number; readonly height: number }
): number {
  return backgroundKind(surface).cover({
    inFront: depthMm < 0,
    aside: Math.abs(at.x - lateralMm),
    y: at.y,
    over: (at.y - lens.y) / half.height,
    halfWidth: half.width,
    detailMm
  });
}
