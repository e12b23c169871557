import { describe, expect, it } from 'vitest';
import type { Plan } from '../call/plan';
import { planSetup } from '../call/planSetup';
import { defaultHabits } from '../habits/habits';
import { demoSetup } from '../testing/demo';
import { builtInKit } from '../kit/builtInKit';
import { defaultFlash } from '../setup/defaults';
import type { Setup } from '../setup/schema';
import { cardLines } from './card';
import { formatShutter } from './light';

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
    expect(stand).toEqual({ name: 'Stand', value: '3.6 m', more: 'from Tobiah, 85 mm' });
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

  it('say both rates where autofocus strays', () => {
    const strayed = { ...entry, odds: 0.78, oddsOnTarget: 0.97, frames: { ...entry.frames, for95: 2 } };
    expect(cardLines(plan, strayed, 'metric')[2]).toEqual({
      name: 'Shoot',
      value: '2 frames',
      more: '78% each, 97% if it lands, refocusing'
    });
  });

  it('say how to set the camera, as the photographer works', () => {
    const setup = demoSetup('Under the palms');
    const line = (camera: Partial<Setup['camera']>, light: Partial<Setup['light']> = {}, compensation = 0) => {
      const changed = { ...setup, camera: { ...setup.camera, ...camera }, light: { ...setup.light, ...light } };
      return cardLines(plan, entry, 'metric', { setup: changed, compensation }).at(-1);
    };
    const f = `f/${entry.stop.label}`;
    const { shutterS, floorS, iso } = entry.light;
    expect(line({ exposureMode: 'aperturePriority' }, {}, 2 / 3)).toEqual({
      name: 'Set the camera',
      value: `min ${formatShutter(Math.max(floorS, shutterS))}`,
      more: `aperture priority ${f}, Auto ISO, +2/3`
    });
    expect(line({ exposureMode: 'manualAutoIso', metering: 'spot' })).toMatchObject({
      value: formatShutter(shutterS),
      more: `manual ${f}, Auto ISO, spot, centre`
    });
    const byHand = { value: `${formatShutter(shutterS)}, ISO ${iso}`, more: `manual ${f}` };
    expect(line({ exposureMode: 'manual' })).toMatchObject(byHand);
    // No meter reads a flash that is the key light; a time chosen by hand is kept by no aperture priority.
    expect(line({ exposureMode: 'aperturePriority' }, { flash: defaultFlash })).toMatchObject(byHand);
    expect(line({ exposureMode: 'aperturePriority' }, { shutterS: 1 / 60 })?.more).toBe(`manual ${f}, Auto ISO`);
  });
});
