/**
 * How often the interval of the plane holds it, as the table of docs/model.md: npx tsx scripts/planes.ts [seed]
 * Made-up frames of one to six faces: lens, stop, distance and rows drawn, eyes read with the error that is stated for them, everybody but
 * who was focused on 60 mm off (one standard deviation). Plans right, tighter by three than what happens, and missed by a row.
 */
import {
  discAt,
  findPlane,
  ownBlurPx,
  standingSdMm,
  type PlaneAsked,
  type PlaneFeature
} from '../src/core/frames/plane';
import { seededNormal, seededRandom } from '../src/core/testing/random';

const seed = Number(process.argv[2] ?? 1);
const [random, normal] = [seededRandom(seed), seededNormal(seed + 1)];
const pick = <T>(of: readonly T[]): T => of[Math.floor(random() * of.length)] as T;

interface Drawn {
  readonly asked: PlaneAsked;
  readonly planeMm: number;
}

function drawn(people: number, plan: 'right' | 'tight' | 'row'): Drawn {
  const [focalLengthMm, fNumber] = [pick([35, 50, 85, 135]), pick([1.4, 1.8, 2.8, 4])];
  const meantMm = focalLengthMm * (20 + 40 * random());
  // About 5 µm on the sensor and 8 mm of sway.
  const spreadMm = Math.hypot(0.012 * (meantMm / focalLengthMm) ** 2, 8);
  const rows = people > 3 ? [0, 650] : [0];
  const depths = Array.from(
    { length: people },
    (_, at) => meantMm + (at === 0 ? 0 : pick(rows) + 80 * (random() - 0.5))
  );
  const elsewhereMm = depths.slice(1);
  const off = {
    right: spreadMm * normal(),
    tight: 3 * spreadMm * normal(),
    row: pick([-1, 1]) * Math.min(650, 0.25 * meantMm) + spreadMm * normal()
  };
  const planeMm = meantMm + off[plan];
  const about = {
    features: [],
    focalLengthMm,
    fNumber,
    pupilMagnification: 1,
    pxPerMm: 6000 / 36,
    meantMm,
    spreadMm,
    elsewhereMm
  };
  const features = depths.flatMap((depthMm, at): PlaneFeature[] => {
    const really = depthMm + (at === 0 ? 4 : standingSdMm) * normal();
    return [0, 1].map((eye) => {
      const sdPx = 0.7 + 0.8 * random();
      const disc = Math.hypot(discAt(really + 15 * eye, planeMm, about), ownBlurPx);
      return {
        of: String(at),
        depthMm: depthMm + 15 * eye,
        depthSdMm: at === 0 ? 4 : standingSdMm,
        discPx: Math.min(18, Math.max(0, disc * (1 + 0.04 * normal()) + sdPx * normal())),
        atLeast: disc > 18,
        sdPx: Math.SQRT2 * sdPx
      };
    });
  });
  return { asked: { ...about, features }, planeMm };
}

const trials = 400;
console.log(
  '| faces | plan right | tighter by three | missed by a row | interval, share of the distance | side named | … wrongly |'
);
console.log('| --- | --- | --- | --- | --- | --- | --- |');
for (const people of [1, 2, 3, 6]) {
  const plans = ['right', 'tight', 'row'] as const;
  const rows = plans.map((plan) =>
    Array.from({ length: trials }, () => {
      const { asked, planeMm } = drawn(people, plan);
      const found = findPlane(asked);
      if (!found) throw new Error('nothing found');
      return {
        held: found.low <= planeMm && planeMm <= found.high,
        wide: (found.high - found.low) / asked.meantMm,
        named: found.side !== 'either',
        wrong: found.side !== 'either' && (found.side === 'behind') !== planeMm > asked.meantMm
      };
    })
  );
  const share = (of: readonly boolean[]) => `${Math.round((100 * of.filter(Boolean).length) / of.length)}%`;
  const all = rows.flat();
  const wide = all.map((one) => one.wide).sort((a, b) => a - b)[Math.floor(all.length / 2)] ?? 0;
  console.log(
    `| ${people} | ${rows.map((one) => share(one.map(({ held }) => held))).join(' | ')} | ${(100 * wide).toFixed(1)}% | ${share(all.map(({ named }) => named))} | ${share(all.map(({ wrong }) => wrong))} |`
  );
}
