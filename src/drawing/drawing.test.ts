import { describe, expect, it } from 'vitest';
import { planSetup } from '../core/call/planSetup';
import { defaultHabits } from '../core/habits/habits';
import { builtInKit } from '../core/kit/builtInKit';
import { bodyOf } from '../core/kit/find';
import type { Mark } from '../core/paper/primitives';
import { demoSetup } from '../core/testing/demo';
import { floorDrawing } from './drawing';
import { floorScale, sideScale, toPx } from './geometry';

function shown(name: string) {
  const setup = demoSetup(name);
  const plan = planSetup({ setup, kit: builtInKit, stopStep: 'third', habits: defaultHabits });
  const body = bodyOf(builtInKit, setup.camera);
  if (plan.kind !== 'plan' || !body) throw new Error('no plan');
  return { setup, plan, body, unit: 'metric' as const };
}
const texts = (marks: readonly Mark[]) => marks.flatMap((mark) => (mark.kind === 'text' ? [mark.text] : []));
/** Middle of the ring about what is focused on. */
const ringAt = (marks: readonly Mark[]) => {
  const ring = marks.find((mark) => mark.kind === 'path' && mark.stroke === 'pencil');
  const [, left, y, , , , , , right] =
    ring?.kind === 'path' ? (/^M([\d.-]+) ([\d.-]+)A(\S+) (\S+) (\S+) (\S+) (\S+) ([\d.-]+) /.exec(ring.d) ?? []) : [];
  return { x: (Number(left) + Number(right)) / 2, y: Number(y) };
};

describe('the Floor as a drawing', () => {
  const door = shown('West door');
  const family = shown('Family on the steps');

  it('names everybody where there is room, the backgrounds, the sharp zone and the scale', () => {
    const { marks, title } = floorDrawing(door, 400, 240);
    expect(title).toBe('West door, from above');
    expect(texts(marks)).toEqual(expect.arrayContaining(['Ines', 'ferns', '1 m', '2 m']));
    expect(texts(marks).join()).toMatch(/sharp 1\.\d+ m – 1\.\d+ m/);
    const crowd = texts(floorDrawing(family, 400, 240).marks);
    for (const person of family.setup.people) expect(crowd).not.toContain(person.name);
  });

  it('rings whom the plan focuses on, to scale, from above and from the side', () => {
    const { setup, plan } = family;
    const target = setup.people.find((person) => person.id === plan.stops[plan.selected]?.target.subjectId);
    if (!target) throw new Error('nobody');
    const above = toPx(floorScale(setup, plan.distanceMm, 400, 240), target.depthMm, target.lateralMm);
    const drawn = ringAt(floorDrawing(family, 400, 240).marks);
    expect(drawn.x).toBeCloseTo(above.x, 1);
    expect(drawn.y).toBeCloseTo(above.y, 1);
    const side = ringAt(floorDrawing(family, 400, 240, 'side').marks);
    const { x } = toPx(sideScale(setup, plan.distanceMm, 400, 240), target.depthMm, 0);
    expect(side.x).toBeCloseTo(x, 1);
    expect(side.y).toBeLessThan(240);
  });
});
