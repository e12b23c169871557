import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { planSetup } from '../call/planSetup';
import { lightLevel } from '../call/light';
import { defaultHabits } from '../habits/habits';
import { builtInKit } from '../kit/builtInKit';
import { arbitraryOf } from '../testing/arbitrary';
import { demoSetup, inPrint } from '../testing/demo';
import { runs } from '../testing/runs';
import type { Remedy } from '../call/remedies/remedy';
import { asPlanned, differentSchema, type Different } from '../setup/schedule';
import type { Setup } from '../setup/schema';
import { differentWords, stepperValue } from '../words/field';
import { asShot } from './asShot';
import { asDifferent } from './nearest';
import { distanceNow, lensSteps, pressStepper, steppersOf } from './steppers';

const kit = builtInKit;
const plan = (setup: Setup) => {
  const result = planSetup({ setup, kit, stopStep: 'third', habits: defaultHabits });
  if (result.kind === 'noPlan') throw new Error(result.reason.code);
  return result;
};
const family = demoSetup('Family on the steps');
const door = demoSetup('West door');
const differently = (changes: Partial<Different>): Different => ({ ...asPlanned, ...changes });

describe('a setup as it turned out', () => {
  it('is the very plan when nothing is different', () => {
    expect(asShot(family, kit)).toBe(family);
  });

  it('has rows further apart, from the front row on, and is harder to hold', () => {
    const deeper = asShot(family, kit, differently({ deeperMm: 600 }));
    const depths = deeper.people.map((person) => person.depthMm);
    expect(Math.min(...depths)).toBe(0);
    expect(Math.max(...depths)).toBeCloseTo(1800);
    // In print: looked at closely no stop holds them so deep.
    const [before, after] = [plan(inPrint(family)), plan(inPrint(deeper))];
    const at = (result: typeof before) => result.stops[result.recommended]?.stop.fNumber ?? 0;
    expect(at(after)).toBeGreaterThan(at(before));
  });

  it('is darker, and asks for more ISO', () => {
    const darker = asShot(family, kit, differently({ lightStops: -2 }));
    expect(lightLevel(darker)).toBe((lightLevel(family) ?? 0) - 2);
    const iso = (setup: Setup) => plan(setup).stops.at(-1)?.light.iso ?? 0;
    expect(iso(darker)).toBeGreaterThan(iso(family));
  });

  it('has the wall closer, never in front of anybody', () => {
    expect(asShot(door, kit, differently({ wallCloserMm: 500 })).backgrounds[0]?.depthMm).toBe(1400);
    expect(asShot(door, kit, differently({ wallCloserMm: 5000 })).backgrounds[0]?.depthMm).toBe(50);
  });

  it('misses somebody, and aims at nobody who is not there', () => {
    const corvin = family.people.find((person) => person.name === 'Corvin')?.id ?? '';
    const aimed: Setup = {
      ...family,
      intent: { ...family.intent, target: { kind: 'eye', personId: corvin, eye: 'leftEye' } }
    };
    const without = asShot(aimed, kit, differently({ missing: [corvin] }));
    expect(without.people).toHaveLength(13);
    expect(without.intent.target).toEqual({ kind: 'best' });
    expect(differentWords(family, kit, differently({ missing: [corvin] }), 'metric')).toBe('without Corvin');
  });

  it('with another lens shows the same from where one then stands', () => {
    const lens = lensSteps(door, kit).find((step) => step.lensId === 'lens-50');
    const other = asShot(door, kit, differently({ lens: lens ?? null }));
    expect(other.camera.lensId).toBe('lens-50');
    expect(plan(other).framedHeightMm).toBeCloseTo(plan(door).framedHeightMm, -1);
    expect(plan(other).distanceMm).toBeLessThan(plan(door).distanceMm);
  });

  it('never touches the plan, and always has an answer or a reason (random)', () => {
    const before = JSON.stringify(family);
    fc.assert(
      fc.property(arbitraryOf(differentSchema), (different) => {
        const shot = asShot(family, kit, different);
        const answer = planSetup({ setup: shot, kit, stopStep: 'third', habits: defaultHabits });
        expect(['plan', 'noPlan']).toContain(answer.kind);
        expect(differentWords(family, kit, different, 'metric')).not.toBe('');
      }),
      { numRuns: runs(60) }
    );
    expect(JSON.stringify(family)).toBe(before);
  });
});

describe('the steppers', () => {
  it('come with the likeliest first, and only what this setup has', () => {
    expect(steppersOf(family, kit).slice(0, 4)).toEqual(['distance', 'deeper', 'light', 'lens']);
    expect(steppersOf(door, kit).slice(0, 4)).toEqual(['distance', 'wall', 'light', 'lens']);
    const unlit: Setup = { ...door, light: { ...door.light, level: { kind: 'unknown' } }, backgrounds: [] };
    expect(steppersOf(unlit, kit)).toEqual(['distance', 'lens']);
  });

  it('step distances on whole steps, up and down again', () => {
    const up = pressStepper(family, kit, asPlanned, 'distance', 1);
    expect(up.distanceMm).toBe(5400);
    expect(pressStepper(family, kit, up, 'distance', -1).distanceMm).toBe(5200);
    const odd = differently({ distanceMm: 3970 });
    expect(pressStepper(family, kit, odd, 'distance', 1).distanceMm).toBe(4000);
    expect(pressStepper(family, kit, differently({ distanceMm: 4000 }), 'distance', -1).distanceMm).toBe(3900);
    expect(distanceNow(family, kit, up)).toBe(5400);
    expect(stepperValue('distance', up, family, 5400, 'metric')).toBe('5.4 m');
  });

  it('step lenses in order and end at the last; back at the planned one nothing is different', () => {
    let different = asPlanned;
    const seen: number[] = [];
    for (let i = 0; i < 30; i++) {
      different = pressStepper(family, kit, different, 'lens', 1);
      if (different.lens) seen.push(different.lens.focalLengthMm);
    }
    expect(seen).toEqual([...seen].sort((a, b) => a - b));
    const last = different;
    expect(pressStepper(family, kit, last, 'lens', 1)).toEqual(last);
    const away = pressStepper(family, kit, asPlanned, 'lens', 1);
    expect(pressStepper(family, kit, away, 'lens', -1)).toEqual(asPlanned);
  });

  it('say what is different in one line', () => {
    let different = pressStepper(family, kit, asPlanned, 'deeper', 1);
    different = pressStepper(family, kit, different, 'light', -1);
    expect(differentWords(family, kit, different, 'metric')).toBe('rows 10 cm deeper · darker by one stop');
    expect(differentWords(family, kit, asPlanned, 'metric')).toBe('as planned');
  });
});

describe('a fix as something that turned out different', () => {
  const remedy = (kind: Remedy['kind'], camera: Partial<Setup['camera']>): Remedy =>
    ({ kind, setup: { ...family, camera: { ...family.camera, ...camera } } }) as Remedy;

  it('is standing elsewhere, or another lens from where one then stands; the rest stays different', () => {
    const darker = differently({ lightStops: -1 });
    const placement = { kind: 'distance' as const, distanceMm: 6000 };
    expect(asDifferent(remedy('stepBack', { placement }), darker)).toEqual({ ...darker, distanceMm: 6000 });
    expect(asDifferent(remedy('changeLens', { placement, lensId: 'other', focalLengthMm: 35 }), darker)).toEqual({
      ...darker,
      distanceMm: 6000,
      lens: { lensId: 'other', adapterIds: family.camera.adapterIds, focalLengthMm: 35 }
    });
  });

  it('is nothing where others have to move', () => {
    for (const kind of ['turnFaces', 'pullTogether', 'bringForward'] as const)
      expect(asDifferent(remedy(kind, {}), asPlanned)).toBeNull();
  });
});
