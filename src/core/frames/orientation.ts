/** How a picture lies, by the faces in it: programs mirror pictures, and turn them without saying so. */
import { median } from 'd3-array';
import { bestFit, type ExpectedHead, type SeenHead } from './assign';
import type { FrameFace } from './schema';

export type Orientation = 'mirrored' | 'sideways';

/** Heads tilted by more than this lie in a picture that stands on its side, degrees. */
const sidewaysDeg = 60;
/** Fewer faces stand as well in one order as in the other. */
const leastFaces = 3;
/** Mirrored, the faces fit the plan by so much better, each, and as a share (chosen: people changing places do not reach it). */
const fitsBetter = { each: 1.5, share: 0.4 } as const;

/**
 * @param seen the faces in the picture that nobody has named
 * @param expected where the plan has everybody
 * @returns null where nothing speaks against the picture's lying as it was taken
 */
export function orientationOf(
  faces: readonly Pick<FrameFace, 'rollDeg'>[],
  seen: readonly SeenHead[],
  expected: readonly ExpectedHead[]
): Orientation | null {
  if ((median(faces, ({ rollDeg }) => Math.abs(rollDeg)) ?? 0) > sidewaysDeg) return 'sideways';
  if (seen.length < leastFaces || expected.length < leastFaces) return null;
  const [straight, mirrored] = [seen, seen.map((head) => ({ ...head, x: 1 - head.x }))].map(
    (all) => bestFit(all, expected).cost / all.length
  );
  if (straight === undefined || mirrored === undefined) return null;
  return straight - mirrored > fitsBetter.each && mirrored < fitsBetter.share * straight ? 'mirrored' : null;
}
