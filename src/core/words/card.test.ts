import { describe, expect, it } from 'vitest';
import type { Plan } from '../call/plan';
import { planSetup } from '../call/planSetup';
import { defaultHabits } from '../habits/habits';
import { demoSetup } from '../testing/demo';
import { builtInKit } from '../kit/builtInKit';
import { cardLines } from './card';

const plan = planSetup({
  setup: demoSetup('Under the palms'),
  kit: builtInKit,
  stopStep: 'half',
  habits: defaultHabits
}) as Plan;
const entry = plan.stops[plan.selected];
if (!entry) throw new Error('no stop');

describe('the figures of the field card', () => {
  it('say where to stand, what is sharp and how often to shoot', () => {
    const [stand, sharp, shoot] = cardLines(plan, entry, 'metric');
    expect(stand).toEqual({ name: 'Stand', value: '3.6 m', more: 'from Ines, 85 mm' });
    expect(sharp?.more).toMatch(/^in front, .* behind$/);
    expect(shoot).toMatchObject({ value: '2 frames', more: expect.stringMatching(/^\d\d% each, refocusing$/) });
    expect(cardLines(plan, entry, 'feet')[0]?.value).toMatch(/′|ft|'/);
  });

  it('say when all behind is sharp, when one frame is enough, and when none is', () => {
    const whole = { ...entry, farMm: null, frames: { ...entry.frames, for95: 4 } };
    expect(cardLines(plan, whole, 'metric').map((line) => line.value)[2]).toBe('4 frames');
    const one = { ...entry, frames: { ...entry.frames, for95: 1 } };
    expect(cardLines(plan, one, 'metric')[2]).toMatchObject({
      value: '1 frame',
      more: expect.stringMatching(/^\d\d% each$/)
    });
    expect(cardLines(plan, whole, 'metric')[1]?.more).toBe('in front, all behind');
    const never = { ...entry, frames: { ...entry.frames, for95: null } };
    expect(cardLines(plan, never, 'metric')[2]?.value).toBe('many');
    expect(cardLines({ ...plan, framesToCombine: 9 }, never, 'metric')[2]).toMatchObject({
      value: '9 frames',
      more: 'to combine the best faces'
    });
  });
});
