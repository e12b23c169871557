/**
 * Where eyes can be measured and where not, as the table of docs/model.md: npx tsx scripts/conditions.ts
 * Everybody left out in turn, 0 to 8 px; the error is the median and what nine of ten stay within, and of how many the disc was told.
 */
import { demoSetup } from '../src/core/testing/demo';
import { demoJobs } from '../src/core/job/demo';
import { expectedOf, measureEye } from '../src/core/measure/eye';
import { fitDisc } from '../src/core/measure/fit';
import { spectrumOf } from '../src/core/measure/spectrum';
import {
  degrade,
  photographedEyes,
  renderedEyes,
  referenceWithout,
  smallerEye,
  type Degraded,
  type Eye
} from '../src/core/testing/eyePatches';
import { seededNormal, seededRandom } from '../src/core/testing/random';

const random = seededRandom(11);
const normal = seededNormal(12);
const discs = [0, 2, 3, 4, 6, 8];
const usual = (): Degraded => ({ disc: 0, noise: 0.004 + 0.008 * random(), normal, quality: 88 });

/** Light and eye as they are, or changed: darker, smaller. */
function trial(name: string, eyes: readonly Eye[], how: Partial<Degraded> = {}, change = (eye: Eye): Eye => eye) {
  const errors: number[] = [];
  let all = 0;
  for (const original of eyes) {
    const eye = change(original);
    for (const disc of discs) {
      all++;
      const patch = degrade(eye, { ...usual(), ...how, disc });
      const told = measureEye(patch, eye.side, eye);
      const fit = fitDisc(spectrumOf(patch, eye.side), expectedOf(eye, referenceWithout(original)));
      if (told.ok && fit) errors.push(Math.abs(fit.discPx - disc));
    }
  }
  errors.sort((a, b) => a - b);
  const at = (share: number) => (errors[Math.floor(share * (errors.length - 1))] ?? NaN).toFixed(1);
  console.log(
    `| ${name} | ${new Set(eyes.map(({ person }) => person)).size} | ${at(0.5)} | ${at(0.9)} | ${Math.round((100 * errors.length) / all)} |`
  );
}

const people = new Map(
  demoJobs().flatMap(({ setups }) =>
    setups.flatMap(({ name }) => demoSetup(name).people.map((person) => [person.id, person] as const))
  )
);
const [drawn, photographed] = [renderedEyes(), photographedEyes()];
const of = (is: (person: NonNullable<ReturnType<typeof people.get>>) => boolean): Eye[] =>
  drawn.filter((eye) => {
    const own = people.get(eye.person);
    return own !== undefined && is(own);
  });

console.log('| eyes | people | median | nine of ten | told, of 100 |\n| --- | --- | --- | --- | --- |');
trial('drawn, all', drawn);
trial(
  '… with glasses',
  of(({ look }) => look.glasses)
);
trial(
  '… children',
  of(({ being }) => being === 'child')
);
trial(
  '… with the darkest skin of six',
  of(({ look }) => look.skin >= 5)
);
trial(
  '… with the lightest',
  of(({ look }) => look.skin <= 2)
);
trial('photographed, all', photographed);
for (const quality of [95, 85, 75, 60]) trial(`… JPEG ${quality}`, photographed, { quality });
for (const noise of [0.01, 0.02, 0.04]) trial(`… noise ${noise * 100}% of middle grey`, photographed, { noise });
for (const sharpen of [0.5, 1]) trial(`… sharpened by ${sharpen}`, photographed, { sharpen });
trial('… three stops too dark', photographed, { noise: 0.01 }, (eye) => ({
  ...eye,
  light: eye.light.map((value) => value / 8)
}));
trial(
  '… half as large',
  photographed.filter(({ eyesPx }) => eyesPx > 60),
  {},
  (eye) => smallerEye(eye, 2)
);
