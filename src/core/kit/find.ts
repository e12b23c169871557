/** The one place that finds the body and the lens a camera holds. */
import { adaptersBetween, type CameraKit } from './cameraKit';
import { fits } from './fits';
import { croppedBody, mountedLens } from './mounted';
import type { Adapter, Body, Kit, Lens } from './schema';

/** What was made of each item before: asked alike, the very same comes back, so that nothing is planned anew. */
function remembered<T extends object>(make: (item: T, key: string) => T): (item: T, key: string) => T {
  const known = new WeakMap<T, Map<string, T>>();
  const most = 64;
  return (item, key) => {
    const of = known.get(item) ?? new Map<string, T>();
    known.set(item, of);
    const found = of.get(key) ?? make(item, key);
    if (of.size >= most) of.clear();
    of.set(key, found);
    return found;
  };
}

const cropped = remembered<Body>((body, mode) => croppedBody(body, mode));
const mounted = remembered<Lens>((lens, key) => {
  const { adapters, focalLengthMm } = JSON.parse(key) as { adapters: Adapter[]; focalLengthMm: number };
  return mountedLens(lens, adapters, focalLengthMm);
});

/** The body, set to its crop mode. */
export function bodyOf(kit: Kit, { bodyId, cropMode }: Pick<CameraKit, 'bodyId' | 'cropMode'>): Body | undefined {
  const body = kit.bodies.find((item) => item.id === bodyId);
  return body && cropMode !== null ? cropped(body, cropMode) : body;
}

/** The lens as the body sees it: at its focal length, with what is between. */
export function lensOf(kit: Kit, holds: Pick<CameraKit, 'lensId' | 'focalLengthMm' | 'adapterIds'>): Lens | undefined {
  const lens = kit.lenses.find((item) => item.id === holds.lensId);
  const adapters = adaptersBetween(kit, holds);
  if (!lens || !adapters) return undefined;
  if (adapters.length === 0 && lens.shortestMm === lens.longestMm) return lens;
  return mounted(lens, JSON.stringify({ adapters, focalLengthMm: holds.focalLengthMm }));
}

/** Whether the lens can be set to this focal length, mm. */
export function reaches(lens: Lens, focalLengthMm: number): boolean {
  return focalLengthMm >= lens.shortestMm * (1 - 1e-9) && focalLengthMm <= lens.longestMm * (1 + 1e-9);
}

/** Why a camera's focal length cannot be, or null. */
export function focalLengthProblem(lens: Lens, focalLengthMm: number): string | null {
  return reaches(lens, focalLengthMm) ? null : `The lens ${lens.name} has no ${focalLengthMm} mm.`;
}

/** Whether body, lens and what is between go together; true where some of them is not in the kit. */
export function goTogether(kit: Kit, holds: CameraKit): boolean {
  const body = kit.bodies.find((item) => item.id === holds.bodyId);
  const lens = kit.lenses.find((item) => item.id === holds.lensId);
  const between = adaptersBetween(kit, holds);
  return !body || !lens || !between || fits(body, lens, between);
}

type Uses = Pick<CameraKit, 'bodyId' | 'lensId' | 'adapterIds'>;

/** Only what the cameras hold. */
export function kitUsed(kit: Kit, cameras: readonly Uses[]): Kit {
  const bodies = new Set(cameras.map((camera) => camera.bodyId));
  const lenses = new Set(cameras.map((camera) => camera.lensId));
  const adapters = new Set(cameras.flatMap((camera) => camera.adapterIds));
  return {
    bodies: kit.bodies.filter((item) => bodies.has(item.id)),
    lenses: kit.lenses.filter((item) => lenses.has(item.id)),
    adapters: kit.adapters.filter((item) => adapters.has(item.id))
  };
}
