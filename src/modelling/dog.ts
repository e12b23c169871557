/**
 * A long-nosed dog sitting, in the pet's head coordinates at full size: eyes at ±30 mm, muzzle along +z for `muzzleMm`, body
 * below and behind, mm.
 */
import { materials } from '../render/scene/meshFile';
import type { Solid } from './polygonise';
import { blend, capsule, ellipsoid, mirroredField, sphere, union, type DistanceField } from './sdf';

/** Length of the muzzle the mesh is made with; the renderer stretches what lies before the eyes. */
export const modelledMuzzleMm = 130;

const noseTip = [0, -0.35 * modelledMuzzleMm, modelledMuzzleMm] as const;
/** Balls stand a little out of the skull. */
const eyes = mirroredField(sphere([30, 0, -9], 9));

const noseField: DistanceField = ellipsoid([0, noseTip[1] + 4, noseTip[2] - 9], [11, 8, 9]);

function fur(field: DistanceField, depth: number): DistanceField {
  return (x, y, z) =>
    field(x, y, z) +
    depth * (Math.sin(x * 0.24 + y * 0.13) * Math.sin(z * 0.21 - y * 0.08) + 0.5 * Math.sin(y * 0.4 + x * 0.2));
}

export function dog(): Solid {
  const skull = ellipsoid([0, 6, -48], [50, 44, 54]);
  const muzzle = capsule([0, -22, -10], [0, noseTip[1] - 1, noseTip[2] - 18], 31, 16);
  const jaw = capsule([0, -44, -18], [0, noseTip[1] - 15, noseTip[2] - 30], 16, 10);
  const brows = mirroredField(sphere([26, 14, -14], 13));
  const ears = mirroredField(
    blend(8, capsule([46, 34, -62], [66, -22, -56], 12, 20), ellipsoid([66, -34, -52], [9, 26, 20]))
  );
  const neck = capsule([0, -30, -78], [0, -150, -120], 52, 70);
  const chest = ellipsoid([0, -200, -110], [86, 110, 92]);
  const trunk = capsule([0, -190, -130], [0, -270, -260], 82, 92);
  const haunches = mirroredField(ellipsoid([78, -285, -240], [42, 66, 82]));
  const forelegs = mirroredField(
    blend(14, capsule([46, -210, -72], [48, -318, -58], 34, 22), ellipsoid([49, -326, -42], [22, 14, 30]))
  );
  const tail = capsule([0, -300, -330], [70, -306, -380], 20, 12);
  const coat = blend(22, skull, muzzle, jaw, brows, neck, chest, trunk, haunches, forelegs, tail);
  const field = union(blend(7, fur(coat, 1.8), fur(ears, 1.4), noseField), eyes);
  return {
    field,
    from: [-140, -345, -410],
    to: [140, 70, 140],
    material: (x, y, z) => {
      if (noseField(x, y, z) < 1.2 || eyes(x, y, z) < 0.6) return materials.dark;
      // A light blaze and chest.
      const blaze = Math.abs(x) < 13 && y > -70 && z > -30;
      const bib = z > -90 + Math.abs(x) * 0.8 && y < -110 && y > -300;
      return blaze || bib ? materials.shirt : materials.hair;
    }
  };
}
