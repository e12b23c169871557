import { describe, expect, it } from 'vitest';
import { planSetup } from '../call/planSetup';
import { defaultHabits } from '../habits/habits';
import { builtInKit } from '../kit/builtInKit';
import { eyeHeight } from '../people/anatomy';
import { seededRandom } from '../maths/random';
import { defaultStatureMm, newSetup } from '../setup/defaults';
import { setupSchema, type Setup } from '../setup/schema';
import { eyesMidpoint } from '../setup/scene';
import { photoOfGroup } from '../testing/photoOfGroup';
import { setupOf } from './asSetup';
import { howSure } from './howSure';
import { readGroup } from './readGroup';

const base: Setup = {
  ...newSetup('s', 'From a photo'),
  camera: { ...newSetup('s', '').camera, lensId: 'lens-50', focalLengthMm: 50 }
};
const { faces, projection } = photoOfGroup({ device: 'camera', rows: 2 }, seededRandom(12));
const group = readGroup(faces, projection);
if (!group) throw new Error('nothing read');
const setup = setupOf(group, base, (id) => `person-${id}`);
const input = { setup, kit: builtInKit, habits: defaultHabits, stopStep: 'third' } as const;

describe('a setup of a photo', () => {
  it('is a valid setup of a group, everyone where they were seen', () => {
    expect(setupSchema.safeParse(setup).success).toBe(true);
    expect(setup.intent.picture).toBe('group');
    expect(setup.people).toHaveLength(faces.length);
    const front = group.rows[0]?.z ?? 0;
    for (const read of group.people) {
      const person = setup.people.find(({ id }) => id === `person-${read.id}`);
      if (!person) throw new Error(read.id);
      expect(Math.abs(person.depthMm + front - read.aheadMm)).toBeLessThanOrEqual(5.01);
      // Eyes are as high as they were, whoever stands, sits or stands on a step.
      const eyes = eyesMidpoint(person).y;
      const lowest = person.being === 'child' ? 0 : eyeHeight(defaultStatureMm.adult, 'seated');
      expect(Math.abs(eyes - Math.max(read.eyesMm, lowest))).toBeLessThan(12);
    }
    expect(new Set(setup.people.map(({ name }) => name)).size).toBe(faces.length);
  });

  it('keeps lens, light and background of what it is made for, and who is known by name', () => {
    const own = { ...base, people: setup.people.slice(0, 1).map((person) => ({ ...person, name: 'Orla' })) };
    const again = setupOf(group, own, (id) => `person-${id}`);
    expect(again.camera.lensId).toBe('lens-50');
    expect(again.backgrounds).toEqual(base.backgrounds);
    expect(again.people.find(({ id }) => id === own.people[0]?.id)?.name).toBe('Orla');
  });

  it('says of how much of what the photo may mean a stop holds: more for narrower ones, all where nothing is in doubt', () => {
    const plan = planSetup(input);
    if (plan.kind === 'noPlan') throw new Error('no plan');
    const held = howSure(input, plan, group, (id) => `person-${id}`, seededRandom(1), 40);
    const at = (stop: string) => held.find((one) => one.stop === stop)?.share ?? -1;
    expect(at('1.8')).toBe(0);
    expect(at('8')).toBeGreaterThanOrEqual(at('4'));
    expect(Math.max(...held.map(({ share }) => share))).toBeGreaterThan(0.8);
    const sure = { ...group, people: group.people.map((person) => ({ ...person, own: 0, withRow: 0 })) };
    for (const { share } of howSure(input, plan, sure, (id) => `person-${id}`, seededRandom(1), 3))
      expect([0, 1]).toContain(share);
  });
});
