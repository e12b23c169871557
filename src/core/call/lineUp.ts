/** Every lens of the kit at the same framing. */
import { bodyOf, lensOf } from '../kit/find';
import { mountingsFor } from '../kit/fits';
import { framedSize } from '../optics/thinLens';
import { cameraDistance, pictureSize } from '../setup/framing';
import { atSameFraming, atSameSpot, type Keep } from '../setup/sameFraming';
import type { Body, Kit, Lens } from '../kit/schema';
import type { Camera, Setup } from '../setup/schema';
import type { BackgroundAtStop, NoPlanReason } from './plan';
import type { PlanInput } from './planInput';
import { isSharpInPrintOnly, isTakeable } from './inPrint';
import { planSetup } from './planSetup';

/** Focal lengths zooms are used at, mm. */
const marks = [14, 16, 18, 20, 24, 28, 35, 50, 70, 85, 105, 135, 200, 300, 400] as const;

/** Nose to ear, mm, for the perspective of a face: about 30 before and 95 behind the eyes. */
const noseToEarMm = 125;

/** Nearer than this a face shows its nearness, mm (common practice, no source). */
const flatteringFromMm = 1000;

export interface LensInLine {
  readonly lensId: string;
  readonly lensName: string;
  readonly focalLengthMm: number;
  /** Where you would stand. */
  readonly distanceMm: number;
  /** Room missing behind you, mm; 0 when there is enough. */
  readonly beyondRoomMm: number;
  /** What it shows across the height of the frame where they stand, mm. */
  readonly framedHeightMm: number;
  /** How much larger the nose is drawn than the ears: 1 + 125 mm/distance. */
  readonly noseToEar: number;
  readonly flattering: boolean;
  /** The lens in use, at the focal length in use. */
  readonly inUse: boolean;
  /** null when this lens cannot take the picture. */
  readonly result: {
    readonly stop: string;
    readonly fNumber: number;
    readonly focusDistanceMm: number;
    readonly window: { readonly first: string; readonly last: string } | null;
    /** Every goal is met, sharp looked at closely or, where nothing is, in print. */
    readonly takeable: boolean;
    /** Sharp in print only; the keeper rate is that of a print then. */
    readonly inPrint: boolean;
    readonly odds: number;
    readonly worstRatio: number;
    readonly backgrounds: readonly (BackgroundAtStop & { readonly id: string })[];
  } | null;
  readonly reason: NoPlanReason | null;
  /** The setup with this lens at this framing. */
  readonly setup: Setup;
}

/** A prime's focal length; a zoom's ends and the marks between, no closer than a sixth to each other. */
export function usefulFocalLengths(lens: Lens): readonly number[] {
  const { shortestMm, longestMm } = lens;
  if (longestMm === shortestMm) return [shortestMm];
  const between = marks.filter((mark) => mark > shortestMm * 1.16 && mark < longestMm / 1.16);
  return [shortestMm, ...between, longestMm];
}

/** A lens that goes on a body, at one of its useful focal lengths. */
export interface InLine extends Pick<Camera, 'lensId' | 'adapterIds' | 'focalLengthMm'> {
  readonly lens: Lens;
  /** As the body sees it. */
  readonly name: string;
}

/** Everything that goes on a body, at its useful focal lengths and at the one in use, shortest first. */
export function lensesInLine(kit: Kit, body: Body, camera: Camera): InLine[] {
  return mountingsFor(kit, body, camera)
    .flatMap(({ lens, adapterIds, seen }) => {
      const own = lens.id === camera.lensId ? [camera.focalLengthMm] : [];
      return [...new Set([...usefulFocalLengths(seen), ...own])].map((focalLengthMm) => ({
        lens,
        lensId: lens.id,
        name: seen.name,
        adapterIds,
        focalLengthMm
      }));
    })
    .sort((a, b) => a.focalLengthMm - b.focalLengthMm);
}

/** The setup, and what each lens keeps of it: its framing when left out. */
export interface LineUpInput extends PlanInput {
  readonly keep?: Keep;
}

/** The lenses side by side, shortest first. Empty when the setup's own body is not in the kit. */
export function lineUp(input: LineUpInput, onProgress: (share: number) => void = () => undefined): LensInLine[] {
  const { setup, kit } = input;
  const body = bodyOf(kit, setup.camera);
  if (!body) return [];
  const { camera } = setup;
  const P = lensOf(kit, camera)?.pupilMagnification ?? 1;
  const room = setup.place.backUpMm;
  return lensesInLine(kit, body, camera).map(({ lens, name, adapterIds, focalLengthMm }, index, all): LensInLine => {
    onProgress(index / all.length);
    const instead = { body, lens, lensId: lens.id, adapterIds, focalLengthMm };
    const free: Setup = { ...setup, intent: { ...setup.intent, stop: { kind: 'byStyle' } } };
    const changed = (input.keep === 'spot' ? atSameSpot : atSameFraming)(free, { body, P }, instead);
    const distanceMm = cameraDistance(changed, body, lens.pupilMagnification);
    const plan = planSetup({ ...input, setup: changed });
    const shared = {
      lensId: lens.id,
      lensName: name,
      focalLengthMm,
      distanceMm,
      framedHeightMm: framedSize(
        focalLengthMm,
        distanceMm,
        pictureSize(body, changed.camera).height,
        lens.pupilMagnification
      ),
      beyondRoomMm: room === null ? 0 : Math.max(0, distanceMm - room),
      noseToEar: 1 + noseToEarMm / distanceMm,
      flattering: distanceMm >= flatteringFromMm,
      inUse: lens.id === setup.camera.lensId && focalLengthMm === setup.camera.focalLengthMm,
      setup: changed
    };
    if (plan.kind === 'noPlan') return { ...shared, result: null, reason: plan.reason };
    const entry = plan.stops[plan.recommended];
    const label = (index: number) => plan.stops[index]?.stop.label ?? '';
    return {
      ...shared,
      reason: null,
      result: {
        stop: label(plan.recommended),
        fNumber: entry?.stop.fNumber ?? 1,
        focusDistanceMm: entry?.target.focusDistanceMm ?? distanceMm,
        window: plan.window ? { first: label(plan.window.first), last: label(plan.window.last) } : null,
        takeable: isTakeable(plan),
        inPrint: isSharpInPrintOnly(plan),
        odds: (isSharpInPrintOnly(plan) ? plan.inPrint?.odds : entry?.oddsOnTarget) ?? 0,
        worstRatio: entry?.worst.ratio ?? 0,
        backgrounds: (entry?.backgrounds ?? []).map((item, index) => ({
          ...item,
          id: plan.backgrounds[index]?.id ?? ''
        }))
      }
    };
  });
}
