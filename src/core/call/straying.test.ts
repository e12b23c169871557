import { describe, expect, it } from 'vitest';
import { defaultHabits } from '../habits/habits';
import { builtInKit } from '../kit/builtInKit';
import { newPerson, newSetup } from '../setup/defaults';
import type { Camera, Setup } from '../setup/schema';
import { planSetup } from './planSetup';
import { strayingOf } from './straying';

/** Two at the altar from thirteen metres, and a guest's head on the way. */
function kiss(camera: Partial<Camera> = {}): Setup {
  const setup = newSetup('kiss', 'First kiss');
  return {
    ...setup,
    people: [
      newPerson('bride', 'Bride', { lateralMm: -110, headYawDeg: 60, sharp: 'nearEye' }),
      newPerson('groom', 'Groom', { lateralMm: 110, headYawDeg: -60, sharp: 'nearEye' }),
      newPerson('guest', 'Guest', {
        depthMm: -5000,
        lateralMm: -300,
        posture: 'seated',
        headYawDeg: 180,
        importance: 'maySoft'
      })
    ],
    light: { ...setup.light, level: { kind: 'estimated', as: 'church' } },
    camera: {
      ...setup.camera,
      lensId: 'lens-135',
      focalLengthMm: 135,
      orientation: 'portrait',
      focusArea: 'zone',
      placement: { kind: 'distance', distanceMm: 13_000 },
      ...camera
    }
  };
}

const told = (setup: Setup) => {
  const input = { setup, kit: builtInKit, habits: defaultHabits, stopStep: 'third' as const };
  const plan = planSetup(input);
  if (plan.kind === 'noPlan') throw new Error('no plan');
  return { plan, straying: strayingOf(input) };
};

describe('autofocus that strays', () => {
  it('does not close the lens: a first kiss is near f/2, the risk said with what it goes to, and one press mends it', () => {
    const { plan, straying } = told(kiss());
    expect(Number(plan.stops[plan.selected]?.stop.label)).toBeLessThanOrEqual(2.8);
    expect(straying?.onTarget).toBeGreaterThan(0.9);
    expect(straying?.odds).toBeLessThan(0.85);
    expect(straying?.mend?.odds).toBeGreaterThan((straying?.odds ?? 1) + 0.05);
    const mended = told(straying?.mend?.setup ?? kiss());
    expect(mended.plan.selected).toBe(plan.selected);
    expect(mended.plan.stops[plan.selected]?.odds).toBeCloseTo(straying?.mend?.odds ?? 0, 9);
  });

  it('is not told of where it costs next to nothing, nor by hand', () => {
    const near = newSetup('near', 'Near');
    expect(told(near).straying).toBeNull();
    expect(told(kiss({ focusMethod: 'magnifier' })).straying).toBeNull();
  });
});
