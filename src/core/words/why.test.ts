import { describe, expect, it } from 'vitest';
import { planSetup } from '../call/planSetup';
import { defaultHabits } from '../habits/habits';
import type { Plan } from '../call/plan';
import { distanceSensitivity } from '../call/sensitivity';
import { whatIfSteadier } from '../call/whatIf';
import { builtInKit } from '../kit/builtInKit';
import { demoJobs } from '../job/demo';
import { demoSetup } from '../testing/demo';
import type { Setup } from '../setup/schema';
import { decidingBackground } from './call';
import { formatIso, formatShutter, lightWords, whyLight } from './light';
import { sensitivityWords, whyBackground, whyDistance, whyOdds, whyTarget, whyZone, whatIfWords } from './why';

function planned(setup: Setup): { plan: Plan; entry: Plan['stops'][number] } {
  const plan = planSetup({ setup, kit: builtInKit, stopStep: 'half', habits: defaultHabits });
  if (plan.kind === 'noPlan') throw new Error(plan.reason.code);
  const entry = plan.stops[plan.selected];
  if (!entry) throw new Error('no stop');
  return { plan, entry };
}

describe('shutter and ISO as cameras mark them', () => {
  it.each([
    [1 / 250, '1/250'],
    [1 / 128, '1/125'],
    [1 / 512, '1/500'],
    [1 / 91, '1/100'],
    [0.25, '1/4'],
    [0.31, '0.3 s'],
    [0.5, '0.5 s'],
    [1, '1 s'],
    [1 / 8000, '1/8000']
  ])('%d s is %s', (seconds, marked) => expect(formatShutter(seconds)).toBe(marked));

  it.each([
    [100, '100'],
    [640, '640'],
    [1562, '1600'],
    [884, '800'],
    [8839, '8000'],
    [950, '1000'],
    [12_800, '12800'],
    [25_600, '25600'],
    [204_800, '204800']
  ])('ISO %d is marked %s', (iso, marked) => expect(formatIso(iso)).toBe(marked));
});

describe('why', () => {
  it('says something sensible for every part of every demo setup', () => {
    for (const { setups } of demoJobs()) {
      for (const setup of setups) {
        const { plan, entry } = planned(setup);
        const said = [
          whyTarget(setup, plan, entry, 'metric'),
          whyDistance(setup, plan, 'metric'),
          whyOdds(plan, entry, 'metric'),
          whyZone(plan, entry),
          whyLight(setup, entry),
          ...plan.backgrounds.map((_, index) => whyBackground(plan, entry, index, 'metric'))
        ];
        for (const sentence of said) expect(sentence).toMatch(/^(?!.*(NaN|undefined|Infinity)).{15,}\.$/);
      }
    }
  });

  it('names the framing, the likeliest to be missed, and the rule for the shutter', () => {
    const door = demoSetup('West door');
    const { plan, entry } = planned(door);
    expect(whyDistance(door, plan, 'metric')).toBe('From here 85 mm frames head and shoulders, 40 cm × 60 cm.');
    expect(whyOdds(plan, entry, 'metric')).toMatch(/^Ines is most likely to come out soft: AF scatter ±/);
    const walk = demoSetup('Walk up the nave');
    expect(whyLight(walk, planned(walk).entry)).toContain('the slowest for someone moving');
    const dark: Setup = {
      ...demoSetup('Speeches'),
      light: { ...demoSetup('Speeches').light, level: { kind: 'ev', ev100: 1 } }
    };
    expect(lightWords(planned(dark).entry).lack).toMatch(/too dark/);
  });

  it('says that the light is not known rather than guessing an ISO', () => {
    const unlit: Setup = {
      ...demoSetup('West door'),
      light: { ...demoSetup('West door').light, level: { kind: 'unknown' } }
    };
    const { entry } = planned(unlit);
    expect(lightWords(entry)).toEqual({ shutter: '1/80', iso: '', lack: '' });
    expect(whyLight(unlit, entry)).toContain('Set the light level');
  });

  it('picks the background that misses its wish most', () => {
    const { plan, entry } = planned(demoSetup('Speeches'));
    expect(plan.backgrounds[decidingBackground(plan, entry) ?? -1]?.name).toBe('candles');
    expect(decidingBackground({ ...plan, backgrounds: [] }, { ...entry, backgrounds: [] })).toBeNull();
  });

  it('says which of the figures is worth measuring', () => {
    const door = demoSetup('West door, the 50');
    const input = { setup: door, kit: builtInKit, stopStep: 'third' as const, habits: defaultHabits };
    const told = whatIfSteadier(input);
    const plan = planSetup(input);
    if (plan.kind === 'noPlan') throw new Error('no plan');
    const hold = told.find((item) => item.kind === 'hold');
    const by = planSetup({
      ...input,
      habits: { ...defaultHabits, holdMm: { ...defaultHabits.holdMm, standing: 2.5 } }
    });
    if (by.kind === 'noPlan' || !hold) throw new Error('nothing told');
    expect(hold.stop).toBe(by.stops[by.recommended]?.stop.label);
    expect(hold.oddsThen).toBeCloseTo(by.stops[plan.recommended]?.odds ?? 0, 9);
    expect(whatIfWords(plan, hold)).toMatch(
      /^If you swayed half as much, (f\/[\d.]+ would work, and )?f\/5 would keep \d\d% instead of 9\d%\.$/
    );
    // On a tripod neither hold nor shake is worth a word.
    const still = whatIfSteadier({ ...input, setup: { ...door, camera: { ...door.camera, stance: 'tripod' } } });
    expect(still.map((item) => item.kind)).not.toContain('shake');
    expect(told.every((item) => item.oddsThen >= item.oddsNow - 1e-9)).toBe(true);
    expect(whatIfSteadier({ ...input, setup: { ...door, people: [] } })).toEqual([]);
  });

  it('advises to measure where a tenth matters, and not where it does not', () => {
    const said = (setup: Setup) => {
      const sensitivity = distanceSensitivity({ setup, kit: builtInKit, stopStep: 'half', habits: defaultHabits });
      return sensitivity ? sensitivityWords(sensitivity, 'metric') : '';
    };
    expect(said(demoSetup('Rings'))).toMatch(/^Measure the distance: 10% off, at 1\.7 m/);
    expect(said(demoSetup('West door'))).toMatch(/^Measure the distance: .* keeps 8\d%/);
    expect(said(demoSetup('Cornets'))).toMatch(/^Judging the distance by eye is close enough/);
  });
});
