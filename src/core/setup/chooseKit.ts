/** The kit somebody has, in place of what a template names. */
import type { Camera } from './schema';
import { adaptersBetween } from '../kit/cameraKit';
import { fits, mountings, type Mounting } from '../kit/fits';
import type { Kit } from '../kit/schema';

/** How many stops of focal length a lens is from a focal length; 0 when it has it. */
function away({ seen }: Mounting, focalLengthMm: number): number {
  const nearest = Math.min(seen.longestMm, Math.max(seen.shortestMm, focalLengthMm));
  return Math.abs(Math.log2(nearest / focalLengthMm));
}

/**
 * The camera with a body and a lens that are on offer: its own where they are, else the first body, and the lens that comes
 * nearest to the focal length, the faster of two. Unchanged where nothing is on offer.
 */
export function withKitOnOffer(camera: Camera, offered: Kit): Camera {
  const own = offered.bodies.find((item) => item.id === camera.bodyId);
  const body = own ?? offered.bodies.find((item) => item.kind === 'mirrorless') ?? offered.bodies[0];
  if (!body) return camera;
  const there = mountings(offered, body);
  const kept = there.find((item) => item.lens.id === camera.lensId);
  const best = [...there].sort(
    (a, b) =>
      away(a, camera.focalLengthMm) - away(b, camera.focalLengthMm) || a.seen.widestFNumber - b.seen.widestFNumber
  )[0];
  const chosen = kept ?? best;
  if (!chosen) return camera;
  const { lens, adapterIds, seen } = chosen;
  const focalLengthMm = Math.min(seen.longestMm, Math.max(seen.shortestMm, camera.focalLengthMm));
  const cropMode = own ? camera.cropMode : null;
  return { ...camera, bodyId: body.id, lensId: lens.id, adapterIds, cropMode, focalLengthMm };
}

/** The camera with another body: its lens stays if there is a way to put it on, else the nearest to it that goes on. */
export function onBody(camera: Camera, kit: Kit, bodyId: string): Camera {
  const body = kit.bodies.find((item) => item.id === bodyId);
  const lens = kit.lenses.find((item) => item.id === camera.lensId);
  const between = adaptersBetween(kit, camera);
  const changed = { ...camera, bodyId, cropMode: null };
  if (!body || !lens || (between && fits(body, lens, between))) return changed;
  return withKitOnOffer({ ...changed, adapterIds: [] }, { ...kit, bodies: [body] });
}
