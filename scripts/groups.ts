/**
 * How near a photo comes to where people stand: groups of people who differ as people do, photographed by a phone and a camera, one
 * to three rows, read, and planned beside the plan of the truth. `npx tsx scripts/groups.ts [photos of each kind]`; seeds are the
 * number of the photo. The table stands in docs/model.md.
 */
import { asFocusTarget } from '../src/core/call/focusTarget';
import { asCalled } from '../src/core/call/inPrint';
import { planSetup } from '../src/core/call/planSetup';
import { howSure } from '../src/core/fromPhoto/howSure';
import { readGroup, type GroupRead } from '../src/core/fromPhoto/readGroup';
import { setupOf } from '../src/core/fromPhoto/asSetup';
import { defaultHabits } from '../src/core/habits/habits';
import { builtInKit } from '../src/core/kit/builtInKit';
import { seededRandom } from '../src/core/maths/random';
import { newSetup } from '../src/core/setup/defaults';
import type { Setup } from '../src/core/setup/schema';
import { photoOfGroup, type GroupShot } from '../src/core/testing/photoOfGroup';

const each = Number(process.argv[2] ?? 50);
const base = (device: string): Setup => {
  const setup = newSetup('photo', 'Photo');
  const [lensId, focalLengthMm] = device === 'phone' ? ['lens-24-70', 26] : ['lens-50', 50];
  const light = { ...setup.light, level: { kind: 'estimated', as: 'openShade' } } as const;
  return {
    ...setup,
    light,
    camera: { ...setup.camera, lensId, focalLengthMm },
    backgrounds: [],
    intent: { ...setup.intent, viewing: { kind: 'close' } }
  };
};
const ninth = (values: readonly number[]): number =>
  [...values].sort((a, b) => a - b)[Math.floor(0.9 * (values.length - 1))] ?? NaN;

/** The same group as it truly stands. */
function truth(shot: GroupShot, read: GroupRead): GroupRead {
  const people = read.people.map((person) => {
    const own = shot.people.find(({ id }) => id === person.id);
    if (!own) throw new Error(person.id);
    const { eyes, row, child } = own;
    return {
      ...person,
      aheadMm: eyes.z,
      lateralMm: eyes.x,
      eyesMm: eyes.y,
      row,
      child: child ? 1 : 0,
      own: 0,
      withRow: 0
    };
  });
  const rows = Array.from({ length: shot.rows }, (_, row) => {
    const those = people.filter((person) => person.row === row);
    return {
      ids: those.map(({ id }) => id),
      z: those.reduce((sum, { aheadMm }) => sum + aheadMm, 0) / those.length,
      sd: 0,
      off: []
    };
  });
  const { heightMm, tiltDeg } = shot;
  return { ...read, people, rows, stand: { heightMm, tiltDeg } };
}

const table = [];
for (const device of ['phone', 'camera'] as const)
  for (const rows of [1, 2, 3]) {
    const errors: number[] = [];
    const fronts: number[] = [];
    const depths: number[] = [];
    let [within, all, rowsRight, everyone, photos, near, said, held] = [0, 0, 0, 0, 0, 0, 0, 0];
    for (let seed = 0; seed < each; seed++) {
      const random = seededRandom(1000 * rows + seed + (device === 'phone' ? 0 : 500_000));
      const shot = photoOfGroup({ device, rows, turnDeg: 40 }, random);
      const read = readGroup(shot.faces, shot.projection);
      if (!read) throw new Error(`nothing read in photo ${seed}`);
      photos++;
      const real = truth(shot, read);
      for (const [index, person] of read.people.entries()) {
        const z = real.people[index]?.aheadMm ?? NaN;
        errors.push(Math.abs(person.aheadMm / z - 1));
        all++;
        if (z >= person.low && z <= person.high) within++;
      }
      const [is, was] = [read.people.map((person) => person.aheadMm), real.people.map((person) => person.aheadMm)];
      fronts.push(Math.abs(Math.min(...is) / Math.min(...was) - 1));
      const deep = (values: number[]) => Math.max(...values) - Math.min(...values);
      depths.push(Math.abs(deep(is) - deep(was)));
      if (read.rows.length === rows) rowsRight++;
      if (read.people.every((person, index) => person.row === real.people[index]?.row)) everyone++;
      const input = (group: GroupRead) => ({
        setup: setupOf(group, base(device), (id) => id),
        kit: builtInKit,
        habits: defaultHabits,
        stopStep: 'third' as const
      });
      const [plan, right] = [planSetup(input(read)), planSetup(input(real))];
      if (plan.kind !== 'plan' || right.kind !== 'plan') throw new Error(`no plan of photo ${seed}`);
      const stop = plan.stops[plan.selected];
      const best = right.stops[right.selected];
      if (stop && best && Math.abs(2 * Math.log2(stop.stop.fNumber / best.stop.fNumber)) < 0.7) near++;
      const sure = howSure(input(read), plan, read, (id) => id, random, 40).find(
        (item) => item.stop === stop?.stop.label
      );
      said += sure?.share ?? 0;
      // The same in truth: focused as the photo's call says, looked at by the standard it is called by.
      const asked = asCalled(input(real), plan);
      const target = stop && asFocusTarget(stop.target, input(read).setup);
      const intent = { ...asked.setup.intent, ...(target ? { target } : {}) };
      const inTruth = planSetup({ ...asked, setup: { ...asked.setup, intent } });
      if (inTruth.kind === 'plan' && inTruth.stops.find((item) => item.stop.label === stop?.stop.label)?.facesHold)
        held++;
    }
    const percent = (share: number) => `${(100 * share).toFixed(1)}%`;
    table.push({
      photos: `${device}, ${rows} ${rows === 1 ? 'row' : 'rows'}`,
      'a face, 90% within': percent(ninth(errors)),
      'front row': percent(ninth(fronts)),
      'depth of the group': `${(ninth(depths) / 1000).toFixed(2)} m`,
      'intervals hold': percent(within / all),
      'rows right': percent(rowsRight / photos),
      'everyone’s row': percent(everyone / photos),
      'call within ⅔ stop': percent(near / photos),
      'holds, said': percent(said / photos),
      'holds, in truth': percent(held / photos)
    });
  }
console.table(table);
