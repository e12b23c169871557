/** From a plan to what the renderer needs: the lens at its stop, focused where the call puts it. */
import { stopsBetween } from '../core/optics/stops';
import { blurDiscDiameter } from '../core/optics/blur';
import type { Plan } from '../core/call/plan';
import { pictureSize } from '../core/setup/framing';
import type { Body, Lens } from '../core/kit/schema';
import type { Setup } from '../core/setup/schema';
import { isEvening } from './evening';
import type { LensState } from './lens/lensView';
import { pupilAt, viewsFor, type Pupil } from './lens/pupil';

/** How far the barrel's opening shifts at the corner, radii of the open pupil, by kind of lens (from memory). */
const barrelShift = { prime: 0.42, zoom: 0.55 } as const;

export interface LensShot {
  readonly lens: LensState;
  readonly pupil: Pupil;
  readonly stopsDown: number;
  readonly barrelShift: number;
  readonly exposure: number;
}

/** The lens at one stop of a plan (the one in use unless another is asked for). */
export function lensShot(setup: Setup, plan: Plan, body: Body, lens: Lens, index = plan.selected): LensShot | null {
  const entry = plan.stops[index];
  const widest = plan.stops[0];
  if (!entry || !widest) return null;
  const picture = pictureSize(body, setup.camera);
  const stopsDown = Math.max(0, stopsBetween(widest.stop.fNumber, entry.stop.fNumber));
  return {
    lens: {
      focalLengthMm: plan.focalLengthMm,
      fNumber: entry.stop.fNumber,
      focusMm: entry.drawnFocusMm,
      pupilMagnification: plan.pupilMagnification,
      pictureWidthMm: picture.width,
      pictureHeightMm: picture.height
    },
    pupil: pupilAt(lens.blades, stopsDown, lens.rim),
    stopsDown,
    barrelShift: setup.camera.stitch ? 0 : barrelShift[lens.longestMm > lens.shortestMm ? 'zoom' : 'prime'],
    exposure: isEvening(setup) ? 1.25 : 1.08
  };
}

/** Views that make the largest disc in the picture smooth; the largest that matters is of the furthest background. */
export function viewsNeeded({ lens }: LensShot, plan: Plan, widthPx: number): number {
  const depths = plan.backgrounds.map((item) => item.depthMm).filter((depth) => depth > 300);
  const disc = Math.max(
    0,
    ...depths.map((depth) =>
      blurDiscDiameter(lens.focalLengthMm, lens.fNumber, lens.focusMm, depth, lens.pupilMagnification)
    )
  );
  return viewsFor((disc / lens.pictureWidthMm) * widthPx);
}
