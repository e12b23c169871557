/** The job the test frames are of: npx tsx scripts/sixOnSteps.ts; writes tests/frames/six.focalis.json. */
import { writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { writeJobFile } from '../src/core/formats/jobFile';
import { demoJobs, demoParts } from '../src/core/job/demo';
import { builtInKit } from '../src/core/kit/builtInKit';

const rows = [
  { id: 'ottoline', depthMm: 0, lateralMm: -520, floorMm: 0 },
  { id: 'ines', depthMm: 20, lateralMm: 0, floorMm: 0 },
  { id: 'tobiah', depthMm: 0, lateralMm: 540, floorMm: 0 },
  { id: 'wren', depthMm: 650, lateralMm: -290, floorMm: 420 },
  { id: 'corvin', depthMm: 660, lateralMm: 290, floorMm: 420 },
  { id: 'marguerite', depthMm: 650, lateralMm: 860, floorMm: 420 }
] as const;

const fernhall = demoJobs()[0];
const family = fernhall?.setups.find(({ id }) => id === 'demo-family-steps');
if (!fernhall || !family) throw new Error('The demo has changed.');
const people = rows.map(({ id, ...place }) => {
  const person = family.people.find((one) => one.id === id || one.id.endsWith(id));
  if (!person) throw new Error(`No ${id}.`);
  const adult = person.being === 'adult';
  return {
    ...person,
    ...place,
    posture: 'standing' as const,
    headYawDeg: 0,
    statureMm: adult ? Math.min(1760, Math.max(1660, person.statureMm)) : 1500
  };
});
const setup = {
  ...family,
  id: 'six-on-the-steps',
  name: 'Six on the steps',
  notes: '',
  people,
  camera: {
    ...family.camera,
    lensId: 'lens-85',
    focalLengthMm: 85,
    placement: { kind: 'distance' as const, distanceMm: 4500 },
    heightMm: 1750,
    pitchDeg: -2
  },
  // They were photographed with the focus set between the rows.
  intent: {
    ...family.intent,
    stop: { kind: 'chosen' as const, fNumber: 4 },
    target: { kind: 'distance' as const, distanceMm: 4802 }
  },
  schedule: { ...family.schedule, startsAt: '14:35', minutes: 10 }
};
const parts = demoParts({ ...fernhall, setups: [setup] });
const job = { ...fernhall.job, id: 'six-job', name: 'Six on the steps', bagId: null, packing: [] };
writeFileSync(
  join(import.meta.dirname, '../tests/frames/six.focalis.json'),
  writeJobFile({ job, ...parts, kit: builtInKit })
);
