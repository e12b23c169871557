/**
 * How honest the verdict on a face is, as the table of docs/model.md: npx tsx scripts/verdicts.ts [seed]
 * Faces of people left out of the reference, eyes 36 to 80 px apart, allowed 5 px (24 megapixels): with disc, noise and JPEG only
 * (A), and through a mosaic, demosaicing, mild noise reduction and sharpening (B).
 */
import { judgeFace } from '../src/core/frames/eyes';
import type { EyeFigure } from '../src/core/frames/schema';
import { expectedOf } from '../src/core/measure/eye';
import { fitDisc } from '../src/core/measure/fit';
import { movementEvidence, movementsIn, type Evidence } from '../src/core/measure/motion';
import { spectrumOf } from '../src/core/measure/spectrum';
import {
  degrade,
  facesOf,
  filesOf,
  photographedEyes,
  renderedEyes,
  referenceWithout,
  smallerEye,
  type Degraded,
  type Eye
} from '../src/core/testing/eyePatches';
import { testFace } from '../src/core/testing/frames';
import { seededNormal, seededRandom } from '../src/core/testing/random';

const seed = Number(process.argv[2] ?? 1);
const random = seededRandom(seed);
const normal = seededNormal(seed + 1);
const allowedPx = 5;
const fits = ({ eyesPx }: Eye) => eyesPx >= 36 && eyesPx <= 80;
const all = [...photographedEyes(), ...renderedEyes()];
const sized = all.flatMap((eye) =>
  fits(eye) ? [eye] : fits({ ...eye, eyesPx: eye.eyesPx / 2 }) ? [smallerEye(eye, 2)] : []
);
const people = facesOf(sized);

function figure(eye: Eye, how: Degraded): { figure: EyeFigure; movement: Evidence | null } {
  const spectrum = spectrumOf(degrade(eye, how), eye.side);
  const expected = expectedOf(eye, referenceWithout(eye));
  const fit = fitDisc(spectrum, expected);
  if (!fit) return { figure: { ok: false, reason: 'noEdge' }, movement: null };
  const { discPx, low, high } = fit;
  return { figure: { ok: true, discPx, low, high, smear: null }, movement: movementEvidence(spectrum, expected) };
}
const discs = [0, 2, 3, 7, 9, 12];
console.log(
  '| files | disc px | faces | sharp | a touch soft | soft | can’t tell |\n| --- | --- | --- | --- | --- | --- | --- |'
);
for (const [kind, draw] of Object.entries(filesOf(random)))
  for (const disc of discs) {
    const tally: Record<string, number> = {};
    let faces = 0;
    for (const eyes of people)
      for (let run = 0; run < 6; run++) {
        const how = { ...draw(), disc, normal } as Degraded;
        const [one, other = one] = eyes;
        if (!one || !other) continue;
        const seen = [figure(one, how), figure(other, how)];
        const [smear = null] = movementsIn([seen.flatMap(({ movement }) => movement ?? [])]);
        const [left, right] = seen.map(({ figure: own }): EyeFigure => (own.ok ? { ...own, smear } : own));
        if (!left || !right) continue;
        const face = testFace({ left, right });
        const { judged } = judgeFace(face, allowedPx);
        tally[judged] = (tally[judged] ?? 0) + 1;
        faces++;
      }
    const share = (of: string) => `${Math.round((1000 * (tally[of] ?? 0)) / faces) / 10}%`;
    console.log(
      `| ${kind} | ${disc} | ${faces} | ${['sharp', 'touchSoft', 'soft', 'unknown'].map(share).join(' | ')} |`
    );
  }
