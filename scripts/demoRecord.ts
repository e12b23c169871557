/** A record to look at, made up: npx tsx scripts/demoRecord.ts; writes static/demo/record.json. Seeded, so that the same comes again. */
import { mkdirSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { writeRecordFile } from '../src/core/formats/recordFile';
import type { Recorded } from '../src/core/record/schema';
import { normalFrom, seededRandom } from '../src/core/maths/random';
import { normalCdf } from '../src/core/maths/normal';
import { magnification } from '../src/core/optics/thinLens';

const random = seededRandom(26);
const normal = normalFrom(random);
const pick = <T>(from: readonly [T, ...T[]]): T => from[Math.floor(random() * from.length)] ?? from[0];
const rounded = (value: number, digits = 2): number => Number(value.toFixed(digits));

interface Shooting {
  readonly count: number;
  readonly lensId: string;
  readonly lens: string;
  readonly f: number;
  readonly widest: number;
  readonly recomposed: boolean;
  readonly biasUm: number;
  readonly spreadUm: number;
  readonly metres: readonly [number, number];
}
/** What the made-up lenses and hands really do. */
const shootings: readonly Shooting[] = [
  { count: 62, lensId: 'lens-85', lens: '85 mm f/1.4', f: 85, widest: 1.4, recomposed: false, biasUm: 19, spreadUm: 11, metres: [1.4, 4] }, // prettier-ignore
  { count: 31, lensId: 'lens-85', lens: '85 mm f/1.4', f: 85, widest: 1.4, recomposed: true, biasUm: 15, spreadUm: 24, metres: [1.4, 3] }, // prettier-ignore
  { count: 44, lensId: 'lens-50', lens: '50 mm f/1.8', f: 50, widest: 1.8, recomposed: false, biasUm: -2, spreadUm: 13, metres: [1, 5] }, // prettier-ignore
  { count: 18, lensId: 'lens-135', lens: '135 mm f/1.8', f: 135, widest: 1.8, recomposed: false, biasUm: 2, spreadUm: 17, metres: [2.5, 8] } // prettier-ignore
];
/** Spread the habits begin with, µm; the disc a large print bears, mm. */
const usualUm = 10;
const discMm = 0.021;
const people = ['Ines', 'Tobiah', 'Marguerite', 'Wren'] as const;
const days = [Date.UTC(2026, 2, 14, 11), Date.UTC(2026, 5, 6, 15), Date.UTC(2026, 8, 19, 14)] as const;

const frames = shootings.flatMap((shooting, kit) =>
  Array.from({ length: shooting.count }, (_, index): Recorded => {
    const { f, lens, lensId, recomposed, biasUm, spreadUm, metres } = shooting;
    const distanceMm = 1000 * (metres[0] + (metres[1] - metres[0]) * random());
    const m = magnification(f, distanceMm);
    const fNumber = shooting.widest * 2 ** (pick([0, 0, 1, 2, 3]) / 6);
    const stance = pick(['standing', 'standing', 'kneeling', 'braced']);
    const swayUm = 1000 * m * m * { standing: 6, kneeling: 3.6, braced: 4.2 }[stance];
    const reachUm = 1000 * fNumber * discMm * 0.9;
    const q = biasUm + spreadUm * normal() + swayUm * normal();
    const tau = 3 + 3 * random();
    const told = q + tau * normal();
    const undecided = Math.abs(told) > 18 && random() < 0.12;
    const held = Math.abs(q) <= reachUm;
    const name = pick(people);
    const sharp = random() < 0.03 ? null : held;
    const odds = 2 * normalCdf(reachUm / Math.hypot(usualUm, swayUm)) - 1;
    return {
      id: `demo-record-${kit}-${index}`,
      jobId: 'demo-record',
      setupId: `demo-record-${kit}`,
      setup: 'A made-up day',
      file: `FOC_${kit + 1}${String(index).padStart(3, '0')}.JPG`,
      takenMs: pick(days) + 60_000 * Math.floor(300 * random()),
      simulated: true,
      complete: true,
      bodyId: 'body-main',
      body: 'Main body',
      lensId,
      lens,
      focalLengthMm: f,
      fNumber: rounded(fNumber),
      method: 'crossPoint',
      recomposed,
      mode: pick(['single', 'single', 'continuous']),
      area: 'point',
      stance,
      secondsToShutter: recomposed ? 1 : 0.5,
      distanceMm: rounded(distanceMm, 0),
      odds: rounded(odds, 3),
      usualUm,
      swayUm: rounded(swayUm),
      frontUm: rounded(-reachUm),
      behindUm: rounded(reachUm),
      focusing: null,
      error: (undecided ? [0.5, 0.5] : [1]).map((share, side) => ({
        q: rounded(side ? -told : told),
        tau: rounded(tau),
        share
      })),
      landedElsewhere: false,
      sharp: sharp === null ? 'unknown' : sharp ? 'all' : 'some',
      people: [{ id: name.toLowerCase(), name, sharp }],
      ...(held && random() < 0.7
        ? { choice: 'keep', reason: null }
        : held
          ? { choice: null, reason: null }
          : { choice: 'reject', reason: 'softEye' })
    };
  })
);
const folder = join(import.meta.dirname, '../static/demo');
mkdirSync(folder, { recursive: true });
writeFileSync(join(folder, 'record.json'), writeRecordFile(frames));
