/** Photos of groups nobody has seen: people differ in their pupils and irises as people do, and what is read of them is off as readings are. */
import { pupilsMm, irisMm, reading, turnSdDeg, type FaceSeen, type PhotoProjection } from '../fromPhoto/rulers';
import { normalFrom, oneOf, uniformBetween, type Random } from '../maths/random';
import { length, pitch, radians, scale, subtract, yaw, type Vector } from '../maths/vector';
import { fullFrameDiagonalMm } from '../optics/criterion';
import { eyeHeight } from '../people/anatomy';

export interface PersonShot {
  readonly id: string;
  /** Eyes, scene coordinates with the camera's foot at the origin, mm. */
  readonly eyes: Vector;
  readonly row: number;
  readonly child: boolean;
}

export interface GroupShot {
  readonly people: readonly PersonShot[];
  readonly faces: readonly FaceSeen[];
  readonly projection: PhotoProjection;
  readonly rows: number;
  readonly heightMm: number;
  readonly tiltDeg: number;
}

/** A phone of 26 mm with 12 megapixels, and a camera with 50 mm and 33. */
export const devices = {
  phone: { widthPx: 4032, heightPx: 3024, focalPx: (26 / fullFrameDiagonalMm) * Math.hypot(4032, 3024) },
  camera: { widthPx: 7008, heightPx: 4672, focalPx: (50 / 36) * 7008 }
} as const;

export interface GroupAsked {
  readonly device: keyof typeof devices;
  readonly rows: number;
  /** Heads are turned and lifted up to so much, degrees. */
  readonly turnDeg?: number;
}

/** A group as photographers stand them: rows at least 70 cm apart, those behind in the gaps or higher up; one in seven a child. */
export function photoOfGroup({ device, rows, turnDeg = 25 }: GroupAsked, random: Random): GroupShot {
  const projection = devices[device];
  const normal = normalFrom(random);
  const count = Math.floor(uniformBetween(random, 3, 6.99));
  const spacing = uniformBetween(random, 480, 620);
  const gap = uniformBetween(random, 700, 1100);
  const riser = oneOf(random, [0, 160, 200]);
  const seated = rows > 1 && random() < 0.6;
  const wide = (count * spacing + 900) / (projection.widthPx / projection.focalPx);
  const front =
    Math.max(1800, wide, 2000 / (projection.heightPx / projection.focalPx)) * uniformBetween(random, 1, 1.35);
  const heightMm = 1550 + 120 * normal();
  const tiltDeg = -2 + 2.5 * normal();
  const people: PersonShot[] = [];
  const faces: FaceSeen[] = [];
  for (let row = 0; row < rows; row++)
    for (let place = 0; place < count; place++) {
      const child = random() < 0.15;
      const stature = child ? uniformBetween(random, 1000, 1450) : 1690 + 85 * normal();
      const sits = seated && row === 0 && !child;
      const eyes = {
        x: (place - (count - 1) / 2 + (row % 2 === 0 ? 0.25 : -0.25) * (rows > 1 ? 1 : 0)) * spacing + 40 * normal(),
        y: eyeHeight(stature, sits ? 'seated' : 'standing') + (sits ? 0 : riser * row),
        z: front + row * gap + 60 * normal()
      };
      const id = `face-${row}-${place}`;
      const face = seen(
        { id, eyes, child, turnDeg: uniformBetween(random, -turnDeg, turnDeg) },
        { projection, heightMm, tiltDeg },
        normal
      );
      if (!face) continue;
      people.push({ id, eyes, row, child });
      faces.push(face);
    }
  return { people, faces, projection, rows, heightMm, tiltDeg };
}

interface Head {
  readonly id: string;
  readonly eyes: Vector;
  readonly child: boolean;
  readonly turnDeg: number;
}
type Taken = Pick<GroupShot, 'projection' | 'heightMm' | 'tiltDeg'>;

/** What is read of a face; undefined outside the picture. */
function seen(
  { id, eyes, child, turnDeg }: Head,
  { projection, heightMm, tiltDeg }: Taken,
  normal: () => number
): FaceSeen | undefined {
  const { widthPx, heightPx, focalPx } = projection;
  const kind = child ? pupilsMm.child : pupilsMm.adult;
  const pupils = kind.mean + kind.sd * normal();
  const iris = irisMm.mean + irisMm.sd * normal();
  const lens = { x: 0, y: heightMm, z: 0 };
  const bearing = Math.atan2(-eyes.x, eyes.z);
  // The person's own left lies to the picture's right of whoever looks at the lens.
  const across = yaw({ x: pupils / 2, y: 0, z: 0 }, -(bearing + radians(turnDeg)));
  const project = (point: Vector) => {
    const from = pitch(subtract(point, lens), -radians(tiltDeg));
    return { x: widthPx / 2 + (focalPx * from.x) / from.z, y: heightPx / 2 - (focalPx * from.y) / from.z };
  };
  const spread = Math.hypot(reading.px, (reading.share * focalPx * pupils) / length(subtract(eyes, lens)));
  const misread = () => (spread / Math.SQRT2) * normal();
  const off = (point: { x: number; y: number }) => ({
    x: point.x + misread(),
    y: point.y + misread()
  });
  const [left, right] = [
    off(project({ x: eyes.x + across.x, y: eyes.y, z: eyes.z + across.z })),
    off(project(subtract(eyes, across)))
  ];
  if (![left, right].every(({ x, y }) => x > 0 && x < widthPx && y > 0 && y < heightPx)) return undefined;
  const away = subtract(eyes, lens);
  const depth = pitch(away, -radians(tiltDeg)).z;
  const ratio = length(away) / depth;
  const irisPx =
    ((iris * focalPx) / length(away)) * ratio * reading.irisFactor * Math.exp(reading.irisShare * normal()) +
    reading.px * normal();
  return { id, left, right, irisPx, yawDeg: turnDeg + turnSdDeg * normal(), pitchDeg: 4 * normal() };
}

export const straightTo = ({ eyes }: PersonShot, heightMm: number): number =>
  length(scale({ ...eyes, y: eyes.y - heightMm }, 1));
