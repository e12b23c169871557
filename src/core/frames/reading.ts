/** A frame read against its plan: where the plane fell, and why. */
import type { Plan, StopPlan } from '../call/plan';
import { stopsBetween } from '../optics/stops';
import type { Body } from '../kit/schema';
import { pictureSize } from '../setup/framing';
import type { Setup } from '../setup/schema';
import { findCauses, type CauseAsked, type CauseFound } from './causes';
import type { ExpectedFace } from './expected';
import { chanceHeld, findPlane, type PlaneAsked, type PlaneFeature, type PlaneFound } from './plane';
import type { Frame } from './schema';
import { eyeOf, type FrameJudged } from './eyes';

export interface FrameReading {
  readonly plane: PlaneFound;
  /** Where the plane was put, mm from the lens: a bias the kit is known to have apart. */
  readonly meantMm: number;
  /** What this frame was planned as, at the stop it was shot with; the call's own stop where the plan has none so near. */
  readonly entry: StopPlan;
  /** Whether the plan has the stop it was shot with. */
  readonly asPlanned: boolean;
  /** The zone that was to be sharp, mm from the lens, at this frame's stop. */
  readonly zone: { readonly nearMm: number; readonly farMm: number };
  /** The plane lies, more likely than not, where everybody measured would still be sharp. */
  readonly within: boolean;
  readonly causes: readonly CauseFound[];
  /** Whose faces it rests on. */
  readonly features: readonly PlaneFeature[];
}

/** People stand about so far from where they are planned, along the axis, mm (from memory). */
const standingSdMm = 60;
/** Depths are measured from whoever was focused on: of theirs no more is uncertain than a face is, mm. */
const targetSdMm = 4;
/** Nearer stops than this are the same, in stops. */
const sameStop = 1 / 6;
const leastSdPx = 0.7;
/** Nine of ten of a normal deviate lie within so many standard deviations on both sides. */
const tails = 3.29;

/** How often each thing happens when a frame is out of focus (from memory). */
const often = { focusError: 1, landedOn: 0.6, youMoved: 0.6 } as const;

/** A focal length further from the plan's than this, as a ratio, is another lens: the plan says nothing of its plane (chosen). */
const sameLens = 1.25;

/** What a frame was planned as, by its stop; null where it was taken with another lens. */
export function plannedFor(
  frame: Pick<Frame, 'focalLengthMm' | 'fNumber'>,
  plan: Plan
): (Pick<FrameReading, 'entry' | 'asPlanned'> & { readonly focalLengthMm: number }) | null {
  const selected = plan.stops[plan.selected];
  const focalLengthMm = frame.focalLengthMm ?? plan.focalLengthMm;
  const ratio = focalLengthMm / plan.focalLengthMm;
  if (!selected || ratio > sameLens || ratio < 1 / sameLens) return null;
  const shotAt = frame.fNumber ?? selected.stop.fNumber;
  const own = plan.stops.find(({ stop }) => Math.abs(stopsBetween(stop.fNumber, shotAt)) < sameStop);
  return { entry: own ?? selected, asPlanned: own !== undefined, focalLengthMm };
}

/** @returns null where nothing in the frame can be held against the plan: nobody measured, or another lens */
export function readFrame(
  { frame, faces }: FrameJudged,
  setup: Setup,
  plan: Plan,
  body: Body,
  expected: readonly ExpectedFace[],
  allowedPx: number
): FrameReading | null {
  const planned = plannedFor(frame, plan);
  if (!planned) return null;
  const { entry, asPlanned, focalLengthMm } = planned;
  const { target } = entry;
  const byPerson = new Map(expected.map((face) => [face.personId, face]));
  const features = frame.faces.flatMap((face): PlaneFeature[] => {
    const own = face.personId === null ? undefined : byPerson.get(face.personId);
    const subject = plan.subjects.find(({ id }) => id === face.personId);
    const judged = faces.find(({ faceId }) => faceId === face.id);
    // What a movement blurs, or a lid covers, says nothing of the plane.
    if (!judged || judged.closed || judged.smear) return [];
    const points = subject?.points ?? [];
    // Pets and things are never expected as faces; whoever pointed at one knows that it is there.
    const middleMm = own?.depthMm ?? (face.pointed ? subject?.nearest : undefined);
    if (middleMm === undefined) return [];
    return (['left', 'right'] as const).flatMap((side): PlaneFeature[] => {
      const eye = eyeOf(face, side);
      const point = points.find(({ feature }) => feature === `${side}Eye`);
      return eye.ok
        ? [
            {
              of: face.id,
              depthMm: point?.depth ?? middleMm,
              depthSdMm: face.personId === target.subjectId ? targetSdMm : standingSdMm,
              discPx: eye.discPx,
              // Both eyes of a face are wrong together: each counts as half.
              sdPx: Math.SQRT2 * Math.max(leastSdPx, (eye.high - eye.low) / tails)
            }
          ]
        : [];
    });
  });
  const size = pictureSize(body, setup.camera);
  const spread = Math.hypot(entry.spread.focusMm, entry.spread.holdMm, entry.spread.leanMm);
  const { turnMm, leanMm } = target.recomposed ?? { turnMm: 0, leanMm: 0 };
  const meantMm = target.focusDistanceMm + turnMm + leanMm;
  const biasMm = entry.planeMm - meantMm;
  const elsewhere = plan.subjects.filter(({ id }) => id !== target.subjectId);
  const fNumber = frame.fNumber ?? entry.stop.fNumber;
  const asked: PlaneAsked = {
    features,
    focalLengthMm,
    fNumber,
    pupilMagnification: plan.pupilMagnification,
    pxPerMm: frame.widthPx / size.width,
    meantMm,
    biasMm,
    spreadMm: spread,
    elsewhereMm: elsewhere.map(({ nearest }) => nearest)
  };
  const plane = findPlane(asked);
  if (!plane) return null;
  const causes: CauseAsked[] = [
    {
      // A bias that shows among the scatter is a cause of its own.
      cause: { kind: Math.abs(biasMm) > entry.spread.focusMm / 2 ? 'lensBias' : 'focusError' },
      mm: entry.planeMm,
      sdMm: entry.spread.focusMm,
      often: often.focusError
    },
    {
      cause: { kind: 'youMoved' },
      mm: entry.planeMm,
      sdMm: Math.hypot(entry.spread.holdMm, entry.spread.leanMm),
      often: often.youMoved
    },
    ...together(elsewhere).map(({ ids, mm }): CauseAsked => ({
      cause: { kind: 'landedOn', ids },
      mm,
      sdMm: Math.max(spread, standingSdMm),
      often: (often.landedOn * ids.length) / elsewhere.length
    }))
  ];
  const zone = { nearMm: entry.nearMm, farMm: entry.farMm ?? Infinity };
  const within = chanceHeld(plane, asked, allowedPx) > 0.5;
  const found = within ? [] : findCauses(plane, causes);
  return { plane, meantMm, entry, asPlanned, zone, within, causes: found, features };
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
