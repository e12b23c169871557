/** What may have put the plane elsewhere: each says where it would lie, how far that scatters, and how often it happens. */
import type { StopPlan } from '../call/plan';
import { degrees, radians } from '../maths/vector';
import { adultFeatures } from '../people/anatomy';
import type { Subject } from '../setup/scene';
import type { CauseAsked } from './causes';
import { headChanges, type HeadChange } from './changed';
import { standingSdMm } from './plane';
import type { Frame } from './schema';

/** The tip of a nose before the eyes, mm (core/people/anatomy.ts). */
export const noseMm = adultFeatures.noseTip.z;
/** How often each thing happens when a frame is out of focus (from memory). */
const often = {
  focusError: 1,
  landedOn: 0.6,
  youMoved: 0.6,
  background: 0.3,
  nose: 0.3,
  recomposed: 0.5,
  theyMoved: 1.5
} as const;

/** An angle from the middle that hardly moves the plane, degrees (chosen). */
const leastTurnDeg = 6;
/** Heads that changed by more than this many standard deviations have moved. */
const surely = 2.5;

interface Asked {
  readonly frame: Frame;
  /** The frame of the same burst before it. */
  readonly before: Frame | null;
  /** What it was planned as. */
  readonly entry: StopPlan;
  /** Who else, and what, focus may have taken. */
  readonly elsewhere: readonly Subject[];
  readonly behind: readonly { readonly id: string; readonly mm: number }[];
  /** Focus was to find an eye by itself. */
  readonly onEye: boolean;
  /** Where the plane was put, how far this kit is known to miss, and how far it scatters, mm. */
  readonly meantMm: number;
  readonly biasMm: number;
  readonly spread: number;
  readonly focalLengthMm: number;
  readonly pxPerMm: number;
  /** Of a person, as planned, mm from the lens. */
  readonly depthOf: (personId: string) => number | undefined;
}

export function possibleCauses(asked: Asked): CauseAsked[] {
  const { entry, elsewhere, behind, meantMm, biasMm, spread } = asked;
  return [
    {
      // A bias that shows among the scatter is a cause of its own.
      cause: { kind: Math.abs(biasMm) > entry.scatter.focusMm / 2 ? 'lensBias' : 'focusError' },
      mm: entry.planeMm,
      sdMm: entry.scatter.focusMm,
      often: often.focusError
    },
    {
      cause: { kind: 'youMoved' },
      mm: entry.planeMm,
      sdMm: Math.hypot(entry.scatter.holdMm, entry.scatter.leanMm),
      often: often.youMoved
    },
    ...together(elsewhere).map(({ ids, mm }): CauseAsked => ({
      cause: { kind: 'landedOn', ids },
      mm,
      sdMm: Math.max(spread, standingSdMm),
      often: (often.landedOn * ids.length) / elsewhere.length
    })),
    ...behind.map(({ id, mm }): CauseAsked => ({
      cause: { kind: 'background', id },
      mm,
      sdMm: Math.max(spread, standingSdMm, 0.1 * Math.abs(mm - meantMm)),
      often: often.background / behind.length
    })),
    ...handlingCauses(asked)
  ];
}

/** Those that lie in how it was taken: the nose, a turn after focusing, whoever moved meanwhile. */
function handlingCauses({ frame, before, entry, onEye, spread, focalLengthMm, pxPerMm, depthOf }: Asked): CauseAsked[] {
  const { target } = entry;
  const turned = target.subjectId === null ? null : turnedBy(frame, target.subjectId, focalLengthMm, pxPerMm);
  const moved = target.subjectId === null ? null : movedSince(frame, before, target.subjectId, depthOf);
  return [
    ...(onEye
      ? [
          {
            cause: { kind: 'nose' },
            mm: entry.planeMm - noseMm,
            sdMm: entry.scatter.focusMm,
            often: often.nose
          } as const
        ]
      : []),
    // Where the plan turns anyway, that is in it already.
    ...(target.recomposed === null && turned !== null
      ? [
          {
            cause: { kind: 'recomposed', deg: turned },
            mm: entry.planeMm / Math.cos(radians(turned)),
            sdMm: spread,
            often: often.recomposed
          } as const
        ]
      : []),
    ...(moved
      ? [
          {
            cause: { kind: 'theyMoved', mm: moved.mm, everybody: moved.everybody },
            mm: entry.planeMm - moved.mm,
            sdMm: Math.hypot(moved.sdMm, spread),
            often: often.theyMoved
          } as const
        ]
      : [])
  ];
}

/** How far from the middle of the picture whoever was focused on stands, degrees; null where it hardly matters, or nobody was found. */
function turnedBy(frame: Frame, subjectId: string, focalLengthMm: number, pxPerMm: number): number | null {
  const face = frame.faces.find(({ personId }) => personId === subjectId);
  if (!face) return null;
  const [x, y] = [(face.left.x + face.right.x) / 2, (face.left.y + face.right.y) / 2];
  const px = Math.hypot(x - frame.widthPx / 2, y - frame.heightPx / 2);
  const deg = degrees(Math.atan(px / pxPerMm / focalLengthMm));
  return deg < leastTurnDeg ? null : deg;
}

/** How whoever was focused on moved since the frame before, where that is sure; everybody alike, and it was the photographer. */
function movedSince(
  frame: Frame,
  before: Frame | null,
  subjectId: string,
  depthOf: (personId: string) => number | undefined
): (HeadChange & { readonly everybody: boolean }) | null {
  if (!before) return null;
  const all = headChanges(frame, before, depthOf);
  const own = all.find(({ personId }) => personId === subjectId);
  if (!own || Math.abs(own.mm) < surely * own.sdMm) return null;
  const others = all.filter(({ personId }) => personId !== subjectId);
  const alike = others.filter(({ mm, sdMm }) => Math.abs(mm - own.mm) < 2 * Math.hypot(sdMm, own.sdMm));
  return { ...own, everybody: others.length > 0 && alike.length > others.length / 2 };
}

/** Those nearer together than they can be told apart are one: a row. */
function together(
  subjects: readonly { readonly id: string; readonly nearest: number }[]
): { readonly ids: readonly string[]; readonly mm: number }[] {
  const rows: { ids: string[]; all: number[] }[] = [];
  for (const { id, nearest } of [...subjects].sort((a, b) => a.nearest - b.nearest)) {
    const last = rows[rows.length - 1];
    if (last && nearest - (last.all[0] ?? nearest) < 2 * standingSdMm) {
      last.ids.push(id);
      last.all.push(nearest);
    } else rows.push({ ids: [id], all: [nearest] });
  }
  return rows.map(({ ids, all }) => ({ ids, mm: all.reduce((sum, one) => sum + one, 0) / all.length }));
}
