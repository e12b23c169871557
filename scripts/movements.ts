/**
 * How often a movement is said, as the tables of docs/model.md: npx tsx scripts/movements.ts [seed]
 * Faces of people left out of the reference; with disc, noise and JPEG only (A), and through a mosaic, demosaicing, mild noise reduction
 * and sharpening (B). Frames of six put such faces together: all still, the camera moved, one of them moved.
 */
import { expectedOf } from '../src/core/measure/eye';
import { movementEvidence, movementsIn, type Evidence, type Smear } from '../src/core/measure/motion';
import { spectrumOf } from '../src/core/measure/spectrum';
import {
  behindGlasses,
  degrade,
  facesOf,
  filesOf,
  photographedEyes,
  referenceWithout,
  renderedEyes,
  smallerEye,
  type Degraded,
  type Eye
} from '../src/core/testing/eyePatches';
import { seededNormal, seededRandom } from '../src/core/testing/random';

const seed = Number(process.argv[2] ?? 1);
const random = seededRandom(seed);
const normal = seededNormal(seed + 1);
const leastEyesPx = 34;
const faces = facesOf([...photographedEyes(), ...renderedEyes()]).flatMap((eyes) =>
  [eyes, eyes.map((eye) => smallerEye(eye, 2))].filter(([eye]) => eye && eye.eyesPx >= leastEyesPx)
);
const cameras = filesOf(random);

const evidenceOf = (eyes: readonly Eye[], how: Degraded): Evidence[] =>
  eyes.flatMap(
    (eye) => movementEvidence(spectrumOf(degrade(eye, how), eye.side), expectedOf(eye, referenceWithout(eye))) ?? []
  );

const shown = (part: number, all: number): string => (all === 0 ? '–' : `${Math.round((1000 * part) / all) / 10}%`);
const lengths = [4, 7, 10, 14];
const someMovement = (px: number): Smear => ({ px, angle: Math.PI * random() });

/** Of faces for themselves. */
function alone(
  camera: () => Partial<Degraded>,
  kind: Eye['kind'],
  how: () => Partial<Degraded>,
  glasses = false
): string {
  const own = faces.filter(([eye]) => eye?.kind === kind);
  const found = own.map((eyes) => {
    const seen = glasses ? eyes.map((eye) => behindGlasses(eye, random)) : eyes;
    return movementsIn([evidenceOf(seen, { disc: 0, ...camera(), ...how(), normal })])[0];
  });
  return shown(found.filter(Boolean).length, found.length);
}

/** Six faces a frame: of those that moved and of those that did not the share said to have moved. */
function together(camera: () => Partial<Degraded>, frames: number, who: 'all' | 'one', px: number): string[] {
  let [movedSaid, moved, stillSaid, still] = [0, 0, 0, 0];
  for (let frame = 0; frame < frames; frame++) {
    const same = camera();
    const movement = someMovement(px);
    const evidence = Array.from({ length: 6 }, (_, place) => {
      const eyes = faces[Math.floor(random() * faces.length)] ?? [];
      const smear = px > 0 && (who === 'all' || place === 0) ? movement : undefined;
      return evidenceOf(eyes, { disc: 4 * random(), ...same, ...(smear && { smear }), normal });
    });
    for (const [place, said] of movementsIn(evidence).entries()) {
      const really = px > 0 && (who === 'all' || place === 0);
      if (really) [moved, movedSaid] = [moved + 1, movedSaid + (said ? 1 : 0)];
      else [still, stillSaid] = [still + 1, stillSaid + (said ? 1 : 0)];
    }
  }
  return [shown(movedSaid, moved), shown(stillSaid, still)];
}

console.log(`| one face | sharp | disc 3–12 | glasses, sharp | ${lengths.map((px) => `moved ${px} px`).join(' | ')} |`);
console.log(`| --- | --- | --- | --- |${' --- |'.repeat(lengths.length)}`);
for (const [name, camera] of Object.entries(cameras))
  for (const kind of ['photographed', 'rendered'] as const) {
    const columns = [
      alone(camera, kind, () => ({ disc: 2 * random() })),
      alone(camera, kind, () => ({ disc: 3 + 9 * random() })),
      alone(camera, kind, () => ({ disc: 2 * random() }), true),
      ...lengths.map((px) => alone(camera, kind, () => ({ disc: 3 * random(), smear: someMovement(px) })))
    ];
    console.log(`| ${name}, ${kind} | ${columns.join(' | ')} |`);
  }
console.log('\n| frames of six | those who moved | those who did not |\n| --- | --- | --- |');
for (const [name, camera] of Object.entries(cameras)) {
  console.log(`| ${name}, all still | – | ${together(camera, 30, 'all', 0)[1]} |`);
  for (const px of [4, 7, 10]) {
    console.log(`| ${name}, the camera moved ${px} px | ${together(camera, 15, 'all', px)[0]} | – |`);
    console.log(`| ${name}, one moved ${px} px | ${together(camera, 25, 'one', px).join(' | ')} |`);
  }
}
