/** A frame of the simulated camera as the renderer takes it: everybody where they were at release, the plane where it fell. */
import type { FrameTruth } from '../core/simulation/shoot';
import type { Setup } from '../core/setup/schema';
import { toCamera, toScene, type Viewpoint } from '../core/setup/scene';
import type { LensShot } from './shot';

/** The setup as it stood when the shutter opened: whoever moved along the axis stands where they had come to. */
export function setupAtRelease(setup: Setup, view: Viewpoint, shot: FrameTruth): Setup {
  const shiftOf = new Map(shot.subjects.map(({ id, shiftMm }) => [id, shiftMm]));
  const moved = <T extends { readonly id: string; readonly depthMm: number; readonly lateralMm: number }>(
    item: T
  ): T => {
    const shift = shiftOf.get(item.id) ?? 0;
    if (shift === 0) return item;
    // Along the axis of the lens, however the camera is turned.
    const at = toCamera(view, { x: item.lateralMm, y: 0, z: item.depthMm });
    const to = toScene(view, { ...at, z: at.z + shift });
    return { ...item, lateralMm: to.x, depthMm: to.z };
  };
  return { ...setup, people: setup.people.map(moved), things: setup.things.map(moved) };
}

/** The lens as it was set then. */
export const lensAtRelease = (planned: LensShot, { planeMm }: FrameTruth): LensShot => ({
  ...planned,
  lens: { ...planned.lens, focusMm: planeMm }
});

/** The track of the camera's own movement in a picture so wide, pixels. */
export const shakePx = ({ shakeMm }: FrameTruth, pictureWidthMm: number, widthPx: number): number =>
  (shakeMm / pictureWidthMm) * widthPx;
