/** One focus at one stop: the discs, the spread, and what the odds are asked. */
import { blurDiscDiameter } from '../optics/blur';
import { defocusAllowance, diffractionDisc, lensBesideAxis, lensDisc, totalDisc } from '../optics/sharpness';
import { effectiveFNumber, magnification, shiftedFocus } from '../optics/thinLens';
import { limits } from '../schema/values';
import type { Candidate } from './candidates';
import type { LightAtStop } from './light';
import { focusedForS, follows, frozenByFlash, shakeDisc, somebodyMoves, subjectMotionDisc } from './motion';
import type { OddsInput } from './odds';
import type { StopPlan } from './plan';
import type { FocusGroup } from './aim';
import type { Member } from './people';
import type { Situation } from './situation';
import { holdSd, stopShiftAt } from './scatter';

/** One focus at one stop: everything that follows from it before anybody is looked at. */
export interface Focus {
  readonly N: number;
  readonly candidate: Candidate;
  /** Where the plane lies at release, on average. */
  readonly plane: number;
  readonly m: number;
  readonly light: LightAtStop;
  /** Discs that blur everything alike, by how much they count, mm. */
  readonly causes: StopPlan['causes'];
  /** All of them together, mm. */
  readonly common: number;
}

/** Where the plane lies on average when a place is focused on, mm; at an f-number, where stopping down has been measured to move it. */
export function meanPlane(
  { f, P, sharpness }: Pick<Situation, 'f' | 'P' | 'sharpness'>,
  { focusDistanceMm, biasMm, biasUm, stopShift }: Candidate,
  N = sharpness.widestFNumber
): number {
  const um = biasUm + stopShiftAt(stopShift, sharpness.widestFNumber, N);
  const landed = um === 0 ? focusDistanceMm : shiftedFocus(f, focusDistanceMm, um / 1000, P);
  return Math.min(landed, limits.maxDistanceMm) + biasMm;
}

export function focusAt(situation: Situation, N: number, candidate: Candidate, light: LightAtStop): Focus {
  const { f, P } = situation;
  const m = magnification(f, candidate.focusDistanceMm, P);
  const shake = frozenByFlash(light)
    ? 0
    : shakeDisc(situation.habits, situation.setup.camera, situation.stabiliser, light.shutterS);
  const causes = {
    lens: Math.min(lensDisc(situation.sharpness, N), situation.lensAtMostMm),
    diffraction: diffractionDisc(effectiveFNumber(N, m, P)),
    pixels: situation.pixel,
    shake
  };
  return {
    N,
    candidate,
    plane: Math.max(meanPlane(situation, candidate, N), (f / P) * 1.001),
    m,
    light,
    causes,
    common: totalDisc(causes.lens, causes.diffraction, causes.pixels, shake)
  };
}

/** What the lens adds where somebody stands off the axis, mm. */
export const offAxisDisc = ({ sharpness, imageHeights }: Situation, N: number, id: string): number =>
  lensBesideAxis(sharpness, N, imageHeights.get(id) ?? 0);

/** All causes but defocus for somebody where they stand, moving across, mm. */
export function otherDisc(situation: Situation, { N, common, light, m }: Focus, id: string, across: number): number {
  const beside = offAxisDisc(situation, N, id);
  if (across === 0 || frozenByFlash(light)) return beside === 0 ? common : totalDisc(common, beside);
  return totalDisc(common, beside, subjectMotionDisc(across, light.shutterS, m));
}

/** Whether all of them have the same other causes. */
const areAlike = ({ sharpness }: Situation, members: readonly Member[]): boolean =>
  sharpness.measuredCorner === undefined && members.every(({ across }) => across === 0);

/** Disc of a depth at release, mm. */
export function defocus({ f, P }: Situation, { N, plane }: Focus, depth: number): number {
  return blurDiscDiameter(f, N, plane, Math.max(depth, 1), P);
}

/** Where the plane lands about its target, mm. */
export function focusScatter({ setup, habits }: Situation, { candidate, m }: Focus): StopPlan['scatter'] {
  const { stance } = setup.camera;
  return {
    focusMm:
      setup.camera.focusMethod === 'scale'
        ? habits.scaleShare * candidate.focusDistanceMm
        : candidate.behindMm / (m * m),
    // Continuous focusing follows the photographer's own sway too.
    holdMm: follows(setup.camera, somebodyMoves(setup)) ? 0 : holdSd(habits, stance, focusedForS(habits, setup.camera)),
    leanMm: candidate.leanMm
  };
}

export function oddsInput(situation: Situation, focus: Focus, members: readonly Member[]): OddsInput {
  const { f, P, C } = situation;
  const { focusMm, holdMm, leanMm } = focusScatter(situation, focus);
  const { focusDistanceMm: s } = focus.candidate;
  return {
    f,
    N: focus.N,
    P,
    s,
    bias: focus.plane - s,
    sd: Math.hypot(focusMm, holdMm, leanMm),
    allowance: defocusAllowance(C, focus.common),
    members: areAlike(situation, members)
      ? members
      : members.map((member) => ({
          ...member,
          allowance: defocusAllowance(C, otherDisc(situation, focus, member.subject.id, member.across))
        }))
  };
}

/** Worst total blur over the circle of confusion, at release. Where all else is alike the two extreme depths decide. */
export function worstRatioOf(situation: Situation, group: FocusGroup, focus: Focus): number {
  const { C } = situation;
  const worst = (nearest: number, furthest: number, other: number) =>
    totalDisc(Math.max(defocus(situation, focus, nearest), defocus(situation, focus, furthest)), other) / C;
  if (areAlike(situation, group.members)) return worst(group.nearest, group.furthest, focus.common);
  return Math.max(
    ...group.members.map(({ nearest, furthest, across, subject }) =>
      worst(nearest, furthest, otherDisc(situation, focus, subject.id, across))
    )
  );
}
