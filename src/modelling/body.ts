/**
 * Bodies without heads, in mm for a stature of 1700: origin on the floor under the base of the neck, +x to their own left,
 * +y up, +z the way they face. Four cuts of clothes in four poses.
 */
import { materials } from '../render/scene/meshFile';
import type { Solid } from './polygonise';
import {
  blend,
  capsule,
  ellipsoid,
  mirroredField,
  moved,
  smoothStep,
  sphere,
  union,
  type DistanceField,
  type Point3
} from './sdf';

export const cuts = ['suit', 'dress', 'shirt', 'coat'] as const;
export const poses = ['standing', 'seated', 'walking', 'embracing'] as const;
export type Cut = (typeof cuts)[number];
export type BodyPosture = (typeof poses)[number];

/** Height of the base of the neck, mm: the head's own neck reaches down to it. */
export const neckBaseMm = { standing: 1416, seated: 1048, walking: 1416, embracing: 1416 } as const;
const standingNeck = neckBaseMm.standing;

/** Thigh, knee, ankle and toe of the two legs; upper arm, elbow and hand of the two arms. */
interface Limbs {
  readonly legs: readonly {
    readonly hip: Point3;
    readonly knee: Point3;
    readonly ankle: Point3;
    readonly toe: Point3;
  }[];
  readonly arms: readonly { readonly shoulder: Point3; readonly elbow: Point3; readonly hand: Point3 }[];
}

function limbsOf(pose: BodyPosture): Limbs {
  const drop = standingNeck - neckBaseMm[pose];
  const shoulder = (side: number): Point3 => [side * 186, 1362 - drop, -8];
  const arm = (side: number, elbow: Point3, hand: Point3) => ({
    shoulder: shoulder(side),
    elbow: [side * elbow[0], elbow[1], elbow[2]] as Point3,
    hand: [side * hand[0], hand[1], hand[2]] as Point3
  });
  const leg = (side: number, knee: Point3, ankle: Point3, hipY = 880) => ({
    hip: [side * 86, hipY, 0] as Point3,
    knee: [side * knee[0], knee[1], knee[2]] as Point3,
    ankle: [side * ankle[0], ankle[1], ankle[2]] as Point3,
    toe: [side * (ankle[0] + 14), 34, ankle[2] + 118] as Point3
  });
  switch (pose) {
    case 'standing':
      return {
        legs: [leg(1, [93, 478, 12], [96, 88, -14]), leg(-1, [93, 478, 12], [96, 88, -14])],
        arms: [arm(1, [232, 1092, -26], [206, 846, 62]), arm(-1, [232, 1092, -26], [206, 846, 62])]
      };
    case 'seated':
      return {
        legs: [leg(1, [108, 512, 424], [104, 92, 410], 530), leg(-1, [100, 512, 424], [92, 92, 440], 530)],
        arms: [arm(1, [236, 742, 10], [112, 606, 268]), arm(-1, [236, 742, 10], [112, 606, 268])]
      };
    case 'walking':
      return {
        legs: [leg(1, [88, 484, 150], [90, 92, 232]), leg(-1, [88, 470, -8], [92, 118, -300])],
        arms: [arm(1, [236, 1096, -110], [214, 868, -104]), arm(-1, [236, 1096, 66], [204, 884, 196])]
      };
    case 'embracing':
      return {
        legs: [leg(1, [93, 478, 12], [96, 88, -14]), leg(-1, [93, 478, 12], [96, 88, -14])],
        arms: [arm(1, [246, 1140, 96], [86, 1128, 292]), arm(-1, [246, 1120, 96], [86, 1050, 276])]
      };
  }
}

function torso(cut: Cut): DistanceField {
  const soft = cut === 'dress';
  const chest = soft
    ? blend(
        30,
        ellipsoid([0, 1262, -6], [150, 168, 98]),
        mirroredField(ellipsoid([64, 1222, 62], [60, 58, 48])),
        ellipsoid([0, 1070, 0], [118, 120, 86]),
        ellipsoid([0, 920, -4], [166, 118, 116])
      )
    : blend(
        40,
        ellipsoid([0, 1250, -2], [172, 188, 116]),
        ellipsoid([0, 1050, 8], [150, 168, 112]),
        ellipsoid([0, 905, -2], [158, 118, 114])
      );
  const shoulders = mirroredField(
    blend(30, capsule([20, 1432, -18], [150, 1382, -14], 34, 44), sphere([soft ? 160 : 176, 1364, -10], soft ? 48 : 58))
  );
  return blend(34, chest, shoulders);
}

const neck = capsule([0, 1390, -12], [0, 1475, -4], 57, 52);

/** A garment open below: from its waist to its hem, with folds that deepen downwards. */
function skirt(waistY: number, hemY: number, waist: Point3, hem: Point3, folds: number, lean = 0): DistanceField {
  return (x, y, z) => {
    const t = Math.max(0, Math.min(1, (waistY - y) / (waistY - hemY)));
    const ease = t ** 0.82;
    const cz = waist[2] + (hem[2] - waist[2]) * ease + lean * t;
    const angle = Math.atan2(z - cz, x);
    const fold = folds * t * (Math.sin(angle * 11 + t * 1.6) * 0.7 + Math.sin(angle * 17 + 2) * 0.4);
    const rx = waist[0] + (hem[0] - waist[0]) * ease + fold;
    const rz = waist[1] + (hem[1] - waist[1]) * ease + fold;
    const k = Math.sqrt((x / rx) ** 2 + ((z - cz) / rz) ** 2);
    const d = (k - 1) * Math.min(rx, rz) * 0.85;
    return Math.max(d, y - waistY, hemY - y);
  };
}

function legsField({ legs }: Limbs, width: number): DistanceField {
  return union(
    ...legs.map(({ hip, knee, ankle }) =>
      blend(24, capsule(hip, knee, 84 + Math.min(0, width), 60 + width), capsule(knee, ankle, 58 + width, 44 + width))
    )
  );
}

function shoesField({ legs }: Limbs): DistanceField {
  return union(
    ...legs.map(({ ankle, toe }) =>
      blend(
        18,
        capsule([ankle[0], 42, ankle[2] - 12], [toe[0], 34, toe[2]], 38, 34),
        capsule(ankle, [ankle[0], 50, ankle[2]], 38)
      )
    )
  );
}

function sleeves({ arms }: Limbs, width: number): DistanceField {
  return union(
    ...arms.map(({ shoulder, elbow, hand }) =>
      blend(18, capsule(shoulder, elbow, 46 + width, 39 + width), capsule(elbow, hand, 38 + width, 27 + width * 0.8))
    )
  );
}

/** Hands at rest: a palm, four fingers as one soft shape, and a thumb. */
function hands({ arms }: Limbs): DistanceField {
  return union(
    ...arms.map(({ elbow, hand }) => {
      const [dx, dy, dz] = [hand[0] - elbow[0], hand[1] - elbow[1], hand[2] - elbow[2]];
      const length = Math.hypot(dx, dy, dz);
      const along = (mm: number): Point3 => [
        hand[0] + (dx / length) * mm,
        hand[1] + (dy / length) * mm,
        hand[2] + (dz / length) * mm
      ];
      const side = Math.sign(hand[0]) || 1;
      const thumb: Point3 = [along(56)[0] - side * 30, along(56)[1] + 6, along(56)[2] + 22];
      return blend(
        12,
        capsule(along(-20), along(34), 26, 30),
        capsule(along(34), along(112), 26, 13),
        capsule(along(24), thumb, 17, 10)
      );
    })
  );
}

export function body(cut: Cut, pose: BodyPosture): Solid {
  const limbs = limbsOf(pose);
  const drop = standingNeck - neckBaseMm[pose];
  const down: Point3 = [0, -drop, 0];
  const seated = pose === 'seated';
  const trunk = moved(torso(cut), down);
  const throat = moved(neck, down);
  const bare = cut === 'dress';
  const legs = legsField(limbs, bare ? -14 : 8);
  const shoes = shoesField(limbs);
  const arms = sleeves(limbs, bare ? -7 : cut === 'coat' ? 8 : 3);
  const fists = hands(limbs);

  const hemmed = garment(cut, pose, drop);
  const dressed = blend(20, blend(26, trunk, arms), throat);
  const lower = seated && bare ? seatedSkirt(limbs) : legs;
  const parts = hemmed ? [blend(16, dressed, hemmed), lower, shoes, fists] : [blend(24, dressed, legs), shoes, fists];
  const collar = cut === 'dress' ? null : moved(collarField(), down);
  const field = union(blend(9, ...parts.slice(0, 1), ...(collar ? [collar] : [])), ...parts.slice(1));

  return {
    field,
    from: [-400, -6, seated ? -260 : -420],
    to: [400, neckBaseMm[pose] + 74, seated ? 620 : 420],
    // Lapels, necklines and the like are lines, not creases: the shader draws them (src/render/figureShader.ts).
    material: (x, y, z) => {
      const up = y + drop;
      if (fists(x, y, z) < 3) return materials.skin;
      if (shoes(x, y, z) < 3 && y < 100) return materials.shoes;
      if (cut === 'dress') {
        // Where arm and chest meet, the skin of the arm wins: cloth must not creep along it.
        const margin = up > 1170 ? 6 : -4;
        const onArm = arms(x, y, z) < trunk(x, y, z) + margin && !(hemmed && hemmed(x, y, z) < 4);
        const onLeg = up < 1000 && !seated && lower(x, y, z) < 2 && !(hemmed && hemmed(x, y, z) < 6);
        return onArm || onLeg ? materials.skin : materials.cloth;
      }
      return materials.cloth;
    }
  };
}

function collarField(): DistanceField {
  const ring = (x: number, y: number, z: number) => {
    const r = Math.sqrt(x * x + ((z + 6) * 1.02) ** 2);
    const top = 1424 + Math.max(0, -z) * 0.12;
    return Math.max(Math.abs(r - 64) - 6, y - top, 1386 - y);
  };
  return ring;
}

/** What hangs below the waist. */
function garment(cut: Cut, pose: BodyPosture, drop: number): DistanceField | null {
  const at = (field: DistanceField) => moved(field, [0, -drop, 0]);
  const lean = pose === 'walking' ? 30 : 0;
  if (cut === 'dress') {
    return pose === 'seated' ? null : at(skirt(1075, 120, [116, 88, 0], [282, 262, -6], 15, lean));
  }
  if (cut === 'coat' && pose !== 'seated') return at(skirt(1060, 545, [156, 116, 4], [216, 178, 0], 6, lean));
  if (cut === 'suit') return at(skirt(1090, 815, [156, 116, 6], [182, 136, 2], 2));
  return null;
}

/** A skirt over the lap of somebody seated, falling from the knees. */
function seatedSkirt({ legs }: Limbs): DistanceField {
  const laps = legs.map(({ hip, knee }) => capsule(hip, knee, 104, 86));
  const falls = legs.map(({ knee, ankle }) => capsule(knee, [ankle[0], 210, ankle[2] + 4], 84, 76));
  const smooth = blend(60, ...laps, ...falls);
  const shins = legs.map(({ knee, ankle }) => capsule(knee, ankle, 48, 36));
  return union((x, y, z) => smooth(x, y, z) + 3 * Math.sin(x * 0.09) * smoothStep(520, 250, y), ...shins);
}
