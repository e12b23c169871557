import { describe, expect, it } from 'vitest';
import { seededNormal, seededRandom } from '../testing/random';
import {
  distortionOf,
  placed,
  poseFrom,
  projected,
  projectionPx,
  tiltOf,
  type CameraIntrinsics,
  type Correspondence,
  type Pose
} from './pose';
import { aim, focusHalves, type SheetPiece } from './sheets';
import { poseAbout } from './simulate';

const lens: CameraIntrinsics = { focalLengthMm: 85, pixelMm: 0.0135, width: 987, height: 803 };
const distanceMm = 1900;
const vPx = projectionPx(lens, distanceMm);

/** The corners of a piece as a lens that bends by a share draws them, some of them known less well. */
function seen(
  piece: SheetPiece,
  pose: Pose,
  distortion: number,
  blurred: readonly number[],
  normal: () => number
): Correspondence[] {
  return piece.markers.flatMap(({ id, x, y, side }) =>
    [
      [0, 0],
      [1, 0],
      [1, 1],
      [0, 1]
    ].map(([right = 0, down = 0]) => {
      const mm = { x: x + right * side, y: y + down * side };
      const sdPx = blurred.includes(id) ? 1 : 0.1;
      const at = projected(pose, mm, { ...lens, distortion }, vPx);
      return { mm, sdPx, px: { x: at.x + sdPx * normal(), y: at.y + sdPx * normal() } };
    })
  );
}

describe('poses', () => {
  it('come with how the lens bends lines, whichever markers are blurred, to 3% of the height either way', () => {
    const { upright, leaning } = focusHalves();
    const random = seededRandom(61);
    const normal = seededNormal(62);
    const between = (least: number, most: number) => least + (most - least) * random();
    for (let time = 0; time < 40; time++) {
      const distortion = between(-0.03, 0.03);
      const tilt = [between(-1.5, 1.5), between(-1.5, 1.5), 0] as const;
      const standing = poseAbout(tilt, aim, [-68, 0, distanceMm]);
      const back = poseAbout([between(35, 55), 0, 0.4], { x: leaning.width / 2, y: leaning.height / 2 }, [
        66,
        3,
        distanceMm
      ]);
      const some = (piece: SheetPiece) => piece.markers.flatMap(({ id }) => (random() < 0.35 ? [id] : []));
      const pieces = [
        // What is aimed at is nearly sharp.
        seen(upright, standing, distortion, some(upright).slice(0, 1), normal),
        seen(leaning, back, distortion, some(leaning), normal)
      ] as const;
      const found = distortionOf(pieces, lens, vPx);
      expect(Math.abs(found - distortion), `${time}: ${found} for ${distortion}`).toBeLessThan(0.006);
      const pose = poseFrom(pieces[0], { ...lens, distortion: found }, vPx);
      expect(pose?.rms).toBeLessThan(2.5);
      expect(Math.abs(tiltOf(pose ?? standing) - tiltOf(standing))).toBeLessThan(1);
      expect(Math.abs(placed(pose ?? back, aim)[2] / distanceMm - 1)).toBeLessThan(0.002);
    }
  });

  it('say nothing of bending where too little is seen', () => {
    const { upright } = focusHalves();
    const one = seen(upright, poseAbout([0, 0, 0], aim, [0, 0, distanceMm]), 0.02, [], () => 0).slice(0, 3);
    expect(distortionOf([one], lens, vPx)).toBe(0);
    expect(poseFrom(one, lens)).toBeNull();
  });
});
