/** Where to stand, and where to point, so that everybody is in the picture with room round them. */
import { degrees } from '../maths/vector';
import { imageDistance } from '../optics/thinLens';
import { adultHead, eyeHeight, headScale, interpupillaryOf } from '../people/anatomy';
import type { Camera, Framing, Person } from './schema';
import type { FrameSize } from './shapes';

/** Half the width across the shoulders with the arms, as a share of the stature (from memory). */
const halfShoulders = 0.135;

/** Where the picture ends below, as a share of stature from the sole (common practice, no source). */
const cutAt: Readonly<Record<Framing, number>> = {
  headAndShoulders: 0.78,
  halfLength: 0.55,
  threeQuarter: 0.28,
  fullLength: 0
};

/** Nobody nearer than this to the lens is framed, mm. */
const leastDepthMm = 300;

interface Box {
  readonly depth: number;
  readonly left: number;
  readonly right: number;
  readonly top: number;
  readonly bottom: number;
}

/** What has to be in the picture of one person, scene coordinates, mm. */
function boxOf(person: Person, framing: Framing): Box {
  const { being, posture, statureMm, floorMm } = person;
  const size = headScale(interpupillaryOf[being]);
  const eyes = floorMm + eyeHeight(statureMm, posture, being);
  const top = eyes + adultHead.crownY * size;
  // Seated people are cut at the same height as standing ones of their size, but never above their chins.
  const bottom = being === 'pet' ? floorMm : floorMm + statureMm * cutAt[framing];
  const half = being === 'pet' ? 150 : statureMm * halfShoulders;
  return {
    depth: person.depthMm,
    left: person.lateralMm - half,
    right: person.lateralMm + half,
    top,
    bottom: Math.min(bottom, eyes + 2 * adultHead.chinY * size)
  };
}

interface Extent {
  readonly low: number;
  readonly high: number;
}

/** Tangents of the directions the group takes up from a distance, across and up. */
function extents(boxes: readonly Box[], camera: Camera, distance: number): { across: Extent; up: Extent } {
  const extent = (low: (box: Box) => number, high: (box: Box) => number, from: number): Extent => ({
    low: Math.min(...boxes.map((box) => (low(box) - from) / (distance + box.depth))),
    high: Math.max(...boxes.map((box) => (high(box) - from) / (distance + box.depth)))
  });
  return {
    across: extent(
      (box) => box.left,
      (box) => box.right,
      camera.lateralMm
    ),
    up: extent(
      (box) => box.bottom,
      (box) => box.top,
      camera.heightMm
    )
  };
}

interface GroupFraming {
  readonly framing: Framing;
  /** Space left on every side, as a share of the picture. */
  readonly marginShare: number;
}

/**
 * The least distance to the subject line, mm, from which everybody fits between the margins when the camera points at
 * the middle of the group. `people` must not be empty.
 */
export function groupDistance(
  people: readonly Person[],
  camera: Camera,
  { framing, marginShare }: GroupFraming,
  picture: FrameSize,
  P = 1
): number {
  const boxes = people.map((person) => boxOf(person, framing));
  const nearest = Math.min(...boxes.map((box) => box.depth));
  const used = 1 - 2 * marginShare;
  const fits = (distance: number) => {
    const v = imageDistance(camera.focalLengthMm, distance, P);
    const { across, up } = extents(boxes, camera, distance);
    return across.high - across.low <= (used * picture.width) / v && up.high - up.low <= (used * picture.height) / v;
  };
  let low = Math.max(leastDepthMm - nearest, camera.focalLengthMm * 1.05);
  let high = low;
  while (!fits(high) && high < 1e6) high = high * 2 + 500;
  for (let i = 0; i < 40 && high - low > 0.5; i++) {
    const middle = (low + high) / 2;
    if (fits(middle)) high = middle;
    else low = middle;
  }
  return high;
}

/** Turn and tilt, to tenths of a degree, that put the middle of the group in the middle of the picture. */
export function aimAtGroup(
  people: readonly Person[],
  camera: Camera,
  framing: Framing,
  distance: number
): Pick<Camera, 'yawDeg' | 'pitchDeg'> {
  if (people.length === 0) return { yawDeg: 0, pitchDeg: 0 };
  const { across, up } = extents(
    people.map((person) => boxOf(person, framing)),
    camera,
    distance
  );
  // The middle between two directions, so that both edges are cut alike.
  const middle = ({ low, high }: Extent) => Math.round(degrees(Math.atan(low) + Math.atan(high)) * 5) / 10 + 0;
  const clamp = (angle: number) => Math.max(-80, Math.min(80, angle));
  return { yawDeg: clamp(middle(across)), pitchDeg: clamp(middle(up)) };
}
