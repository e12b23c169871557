import { describe, expect, it } from 'vitest';
import type { PlanInput } from '../../call/planInput';
import { planSetup } from '../../call/planSetup';
import { defaultHabits } from '../../habits/habits';
import { builtInKit } from '../../kit/builtInKit';
import { seededRandom } from '../../testing/random';
import { areasOf } from '../../setup/focusArea';
import { bestChoices, modeScenes, modeSetup, shootScene, tryScene, withChoice, type ModeChoice } from './mode';

const named = <T extends { readonly id: string }>(items: readonly T[], wanted: string): T => {
  const found = items.find(({ id }) => id === wanted);
  if (!found) throw new Error(`The kit has no ${wanted}.`);
  return found;
};
const body = named(builtInKit.bodies, 'body-main');
const slr = named(builtInKit.bodies, 'body-second');
const lens = named(builtInKit.lenses, 'lens-85');
const usual: ModeChoice = { mode: 'single', area: 'point', point: 'onEye', drive: 'one' };
const inputOf = (setup: PlanInput['setup']): PlanInput => ({
  setup,
  kit: builtInKit,
  stopStep: 'third',
  habits: defaultHabits
});
const shot = (scene: (typeof modeScenes)[number], choice: Partial<ModeChoice>, seed = 4) => {
  const random = seededRandom(seed);
  const setup = withChoice(modeSetup(scene, random, body, lens), { ...usual, ...choice });
  const made = shootScene(inputOf(setup), random);
  if (!made) throw new Error('Nothing could be planned.');
  return made;
};

describe('which mode', () => {
  it('has six scenes that can be planned, drawn by chance, wide open whatever is picked', () => {
    for (const scene of modeScenes) {
      const random = seededRandom(9);
      const [one, other] = [modeSetup(scene, random, body, lens), modeSetup(scene, random, body, lens)];
      expect(one).not.toEqual(other);
      for (const choice of [usual, { ...usual, mode: 'continuous', area: 'zone', point: 'middle' } as const]) {
        const plan = planSetup(inputOf(withChoice(one, choice)));
        expect(plan.kind).toBe('plan');
        if (plan.kind === 'plan') expect(plan.stops[plan.selected]?.stop.label).toBe('1.4');
      }
    }
  });

  it('is lost to movement where one waits, and kept where one follows', () => {
    const waited = shot('nave', { mode: 'single', point: 'middle' });
    expect(waited.kept).toBeLessThan(8);
    expect(waited.lost.moved).toBeGreaterThan(25);
    const followed = shot('nave', { mode: 'continuous' });
    // Not all: a body’s lag behind somebody who walks varies.
    expect(followed.kept).toBeGreaterThan(20);
    for (const { kept, moments, lost } of [waited, followed])
      expect(kept + lost.elsewhere + lost.moved + lost.missed + lost.blinked).toBe(moments);
  });

  it('is lost to what stands nearer where the camera chooses, and says what', () => {
    const left = shot('leaves', { area: 'wholeFrame' });
    expect(left.lost.elsewhere).toBeGreaterThan(4);
    expect(left.mostlyOn).toBe('mode-leaves');
    expect(shot('vow', { drive: 'burst' }, 7).mostlyOn).toBeNull();
    expect(shot('leaves', {}).lost.elsewhere).toBeLessThan(left.lost.elsewhere);
  });

  it('needs more looking through for a burst, which outlives a blink', () => {
    const [one, burst] = [shot('vow', {}, 7), shot('vow', { drive: 'burst' }, 7)];
    expect([one.frames, burst.frames]).toEqual([40, 200]);
    expect(burst.lost.blinked).toBe(0);
    expect(burst.kept).toBeGreaterThanOrEqual(one.kept);
  });

  it('knows the best way there is: no other has better odds', () => {
    const setup = modeSetup('child', seededRandom(1), slr, lens);
    const all = bestChoices(inputOf(setup), slr);
    expect(areasOf(slr)).not.toContain('eyeDetection');
    expect(areasOf(body)).toContain('eyeDetection');
    expect(all).toHaveLength(3 * 5 * 2);
    for (const { odds } of all) expect(odds).toBeLessThanOrEqual(all[0]?.odds ?? 0);
    expect(all[0]?.choice.mode).not.toBe('single');
    // A phone has no points to choose.
    expect(areasOf({ kind: 'phone' })).toContain('tap');
    expect(areasOf({ kind: 'phone' })).not.toContain('zone');
    const asked = { input: inputOf(setup), body: slr, choice: usual, seed: 3 } as const;
    expect(tryScene(asked)).toEqual(tryScene(asked));
    expect(tryScene(asked)?.best).toEqual(all[0]);
  });
});
