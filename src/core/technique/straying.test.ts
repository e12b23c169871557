import { describe, expect, it } from 'vitest';
import { defaultHabits } from '../habits/habits';
import { builtInKit } from '../kit/builtInKit';
import { newPerson, newSetup } from '../setup/defaults';
import type { Camera, Setup } from '../setup/schema';
import { planSetup } from '../call/planSetup';
import { strays } from '../call/strays';
import { surerAim } from './straying';

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
  const entry = plan.stops[plan.selected];
  if (!entry) throw new Error('no stop');
  return { plan, entry, surer: surerAim(input) };
};

describe('autofocus that strays', () => {
  it('does not close the lens: a first kiss is near f/2, the risk is said, and one press mends it', () => {
    const { plan, entry, surer } = told(kiss());
    expect(Number(entry.stop.label)).toBeLessThanOrEqual(2.8);
    expect(entry.oddsOnTarget).toBeGreaterThan(0.9);
    expect(entry.odds).toBeLessThan(0.85);
    expect(surer?.odds).toBeGreaterThan(entry.odds + 0.05);
    if (!surer) throw new Error('none surer');
    const mended = told(surer.setup);
    expect(mended.plan.selected).toBe(plan.selected);
    expect(mended.entry.odds).toBeCloseTo(surer.odds, 9);
  });

  it('is not told of where it costs next to nothing, nor by hand', () => {
    for (const setup of [newSetup('near', 'Near'), kiss({ focusMethod: 'magnifier' })]) {
      const { entry, surer } = told(setup);
      expect(strays(entry)).toBe(false);
      expect(surer).toBeNull();
    }
  });
});
