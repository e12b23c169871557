/** The one place that finds the body and the lens a camera holds. */
import type { Body, Kit, Lens } from './schema';

interface Holds {
  readonly bodyId: string;
  readonly lensId: string;
}

export function bodyOf(kit: Kit, { bodyId }: Pick<Holds, 'bodyId'>): Body | undefined {
  return kit.bodies.find((item) => item.id === bodyId);
}

export function lensOf(kit: Kit, { lensId }: Pick<Holds, 'lensId'>): Lens | undefined {
  return kit.lenses.find((item) => item.id === lensId);
}

/** Whether the lens can be set to this focal length, mm. */
export function reaches(lens: Lens, focalLengthMm: number): boolean {
  return focalLengthMm >= lens.shortestMm && focalLengthMm <= lens.longestMm;
}

/** Why a camera's focal length cannot be, or null. */
export function focalLengthProblem(lens: Lens, focalLengthMm: number): string | null {
  return reaches(lens, focalLengthMm) ? null : `The lens ${lens.name} has no ${focalLengthMm} mm.`;
}

/** Only what the cameras hold. */
export function kitUsed(kit: Kit, cameras: readonly Holds[]): Kit {
  const bodies = new Set(cameras.map((camera) => camera.bodyId));
  const lenses = new Set(cameras.map((camera) => camera.lensId));
  return {
    bodies: kit.bodies.filter((item) => bodies.has(item.id)),
    lenses: kit.lenses.filter((item) => lenses.has(item.id))
  };
}
