import { describe, expect, it } from 'vitest';
import { looseLenses } from '../testing/kit';
import { builtInKit } from '../kit/builtInKit';
import { newBackground, newPerson, newSetup } from '../setup/defaults';
import { demoSetup } from '../testing/demo';
import type { Lens } from '../kit/schema';
import { apertureStyles, type Setup } from '../setup/schema';
import { alternatives } from './alternatives';
import { asFocusTarget } from './focusTarget';
import { lineUp, usefulFocalLengths } from './lineUp';
import { planSetup } from './planSetup';
import { defaultHabits } from '../habits/habits';
import { distanceSensitivity } from './sensitivity';

const kit = builtInKit;
const stopStep = 'half' as const;
const lens = (id: string) => kit.lenses.find((item) => item.id === id) as Lens;
const demo = demoSetup;

describe('line-up', () => {
  const line = lineUp({ setup: demo('Under the palms'), kit, stopStep, habits: defaultHabits });

  it('has every lens, zooms at their useful focal lengths', () => {
    expect(usefulFocalLengths(lens('lens-24-70'))).toEqual([24, 28, 35, 50, 70]);
    expect(usefulFocalLengths(lens('lens-70-200'))).toEqual([70, 85, 105, 135, 200]);
    expect(usefulFocalLengths(lens('lens-85'))).toEqual([85]);
    expect(new Set(line.map((item) => item.lensId)).size).toBe(looseLenses.length);
  });

  it('frames the same from wherever each lens stands', () => {
    // 1000 mm on a side of 24 mm: s = f (1 + 1000/24).
    const side = demo('Under the palms').camera.orientation === 'landscape' ? 24 : 36;
    for (const item of line) expect(item.distanceMm).toBeCloseTo(item.focalLengthMm * (1 + 1000 / side), 6);
  });

  it('draws the nose larger than the ears by what perspective makes of 125 mm, which shows under about a metre', () => {
    for (const item of line) {
      // A nose 30 mm before the eyes and an ear 95 mm behind them, drawn in inverse proportion to their distances.
      const drawn = (item.distanceMm + 95) / (item.distanceMm - 30);
      expect(item.noseToEar / drawn).toBeCloseTo(1, 1);
      expect(item.noseToEar).toBeGreaterThan(1);
      expect(item.flattering).toBe(item.distanceMm >= 1000);
    }
    const near = lineUp({ setup: demo('West door'), kit, stopStep, habits: defaultHabits });
    expect(near.find((item) => item.focalLengthMm === 35)?.flattering).toBe(false);
    expect(line[line.length - 1]?.flattering).toBe(true);
    const ofNearest = Math.min(...near.map((item) => item.distanceMm));
    expect(near.find((item) => item.distanceMm === ofNearest)?.noseToEar).toBe(
      Math.max(...near.map((item) => item.noseToEar))
    );
  });

  it('marks the lens in use, at its own focal length, and goes from short to long', () => {
    const setup = newSetup('s', 'S');
    const zoomed = { ...setup, camera: { ...setup.camera, lensId: 'lens-24-70', focalLengthMm: 42 } };
    const found = lineUp({ setup: zoomed, kit, stopStep, habits: defaultHabits });
    expect(found.filter((item) => item.inUse).map((item) => [item.lensId, item.focalLengthMm])).toEqual([
      ['lens-24-70', 42]
    ]);
    const lengths = found.map((item) => item.focalLengthMm);
    expect(lengths).toEqual([...lengths].sort((a, b) => a - b));
    expect(found.filter((item) => item.lensId === 'lens-24-70')).toHaveLength(6);
  });

  it('gives each lens the answer its own setup would get, whatever stop was chosen', () => {
    const setup = demo('Under the palms');
    const chosen: Setup = { ...setup, intent: { ...setup.intent, stop: { kind: 'chosen', fNumber: 16 } } };
    for (const item of lineUp({ setup: chosen, kit, stopStep, habits: defaultHabits })) {
      const plan = planSetup({ setup: item.setup, kit, stopStep, habits: defaultHabits });
      if (plan.kind === 'noPlan') {
        expect(item).toMatchObject({ result: null, reason: plan.reason });
        continue;
      }
      const entry = plan.stops[plan.recommended];
      expect(plan.selected).toBe(plan.recommended);
      expect(item.reason).toBeNull();
      expect(item.result).toMatchObject({
        stop: entry?.stop.label,
        fNumber: entry?.stop.fNumber,
        focusDistanceMm: entry?.target.focusDistanceMm,
        odds: entry?.oddsOnTarget,
        worstRatio: entry?.worst.ratio
      });
      expect(item.result?.window?.first).toBe(plan.window ? plan.stops[plan.window.first]?.stop.label : undefined);
      expect(item.result?.window?.last).toBe(plan.window ? plan.stops[plan.window.last]?.stop.label : undefined);
      expect(item.result?.backgrounds.map((background) => background.id)).toEqual(
        setup.backgrounds.map((background) => background.id)
      );
    }
  });

  it('makes a longer lens soften the background no more for its detail at equal framing and stop, but more on the frame', () => {
    const setup = newSetup('s', 'S', { backgrounds: [newBackground('b', 'B', { depthMm: 4000, wish: 'free' })] });
    const at = (id: string) => {
      const item = lineUp({ setup, kit, stopStep, habits: defaultHabits }).find((entry) => entry.lensId === id);
      const plan = item && planSetup({ setup: item.setup, kit, stopStep, habits: defaultHabits });
      return plan?.kind === 'plan' ? plan.stops.find((entry) => entry.stop.label === '4')?.backgrounds[0] : undefined;
    };
    const short = at('lens-35');
    const long = at('lens-135');
    // Object space at equal framing: b = D/(N (1 + H/h)), the focal length drops out (closed form).
    expect((long?.lostDetailMm ?? 0) / (short?.lostDetailMm ?? 1)).toBeCloseTo(1, 1);
    expect(long?.shareOfFrameHeight ?? 0).toBeGreaterThan(2 * (short?.shareOfFrameHeight ?? 1));
  });

  it('says where there is not room enough', () => {
    // A 50 at 5 m draws at 1/99, and so does an 85 at 8.5 m and a 35 at 3.5 m (s = f (1 + 1/m)).
    const base = newSetup('s', 'S', { place: { scenery: 'plain', backUpMm: 6000, behindMm: null, sideMm: null } });
    const placement = { kind: 'distance', distanceMm: 5000 } as const;
    const setup = { ...base, camera: { ...base.camera, lensId: 'lens-50', focalLengthMm: 50, placement } };
    const beyond = (id: string, of = setup) =>
      lineUp({ setup: of, kit, stopStep, habits: defaultHabits }).find((item) => item.lensId === id)?.beyondRoomMm;
    expect(beyond('lens-85')).toBeCloseTo(2500, 6);
    expect(beyond('lens-35')).toBe(0);
    expect(beyond('lens-85', { ...setup, place: { ...setup.place, backUpMm: null } })).toBe(0);
  });
});

describe('alternatives', () => {
  it('list every eye, best first, and the call takes one that is as good as the best', () => {
    const setup = demo('Family on the steps');
    const { targets } = alternatives({ setup, kit, stopStep, habits: defaultHabits });
    const plan = planSetup({ setup, kit, stopStep, habits: defaultHabits });
    expect(targets.filter(({ target }) => /Eye$/.test(target.feature ?? ''))).toHaveLength(28);
    expect(targets.length).toBeLessThanOrEqual(29);
    const chosen = plan.kind === 'plan' ? plan.stops[plan.selected] : undefined;
    // Equal within three points where focus lands on the eye; autofocus, on what else its point covers, a point more or less.
    expect(chosen?.odds ?? 0).toBeGreaterThanOrEqual((targets[0]?.odds ?? 1) - 0.0301 - 0.01);
  });

  it('of targets tell what choosing each would give, and from which stop it holds the faces', () => {
    const setup = demo('Under the palms');
    const { targets } = alternatives({ setup, kit, stopStep, habits: defaultHabits });
    const own = planSetup({ setup, kit, stopStep, habits: defaultHabits });
    if (own.kind === 'noPlan') throw new Error('no plan');
    expect(targets.length).toBeGreaterThan(2);
    for (const { target, odds, worstRatio, holdsFrom } of targets) {
      const asked = planSetup({
        setup: { ...setup, intent: { ...setup.intent, target: asFocusTarget(target, setup) } },
        kit,
        stopStep,
        habits: defaultHabits
      });
      if (asked.kind === 'noPlan') throw new Error('no plan');
      const entry = asked.stops[own.selected];
      expect(entry?.target.focusDistanceMm).toBeCloseTo(target.focusDistanceMm, 0);
      expect(odds).toBeCloseTo(entry?.odds ?? -1, 3);
      expect(worstRatio).toBeCloseTo(entry?.worst.ratio ?? -1, 3);
      expect(holdsFrom).toBe(asked.stops.find((item) => item.facesHold)?.stop.label ?? null);
    }
    const order = targets.map((item) => item.odds);
    expect(order).toEqual([...order].sort((a, b) => b - a));
  });

  it('of styles tell what each would pick, and what it would miss', () => {
    for (const name of ['Under the palms', 'West door, the 50']) {
      const setup = demo(name);
      const { styles: found } = alternatives({ setup, kit, stopStep, habits: defaultHabits });
      expect(found.map((item) => item.style)).toEqual([...apertureStyles]);
      for (const item of found) {
        const intent = { ...setup.intent, style: item.style, stop: { kind: 'byStyle' } } as const;
        const plan = planSetup({ setup: { ...setup, intent }, kit, stopStep, habits: defaultHabits });
        if (plan.kind === 'noPlan') throw new Error('no plan');
        const entry = plan.stops[plan.recommended];
        expect(item).toEqual({
          style: item.style,
          stop: entry?.stop.label,
          odds: entry?.odds,
          worstRatio: entry?.worst.ratio,
          missed: plan.backgrounds.filter((_, index) => !entry?.backgrounds[index]?.met).map((missed) => missed.name)
        });
      }
    }
    const missing = alternatives({ setup: demo('West door, the 50'), kit, stopStep, habits: defaultHabits }).styles;
    expect(missing[0]?.missed).toEqual(['ferns']);
  });

  it('of a setup that cannot be planned are none', () => {
    const setup = newSetup('s', 'S', { people: [] });
    expect(alternatives({ setup, kit, stopStep, habits: defaultHabits })).toEqual({
      targets: [],
      between: null,
      viewings: [],
      styles: []
    });
  });
});

describe('sensitivity to the distance', () => {
  it('is small far away and large close up', () => {
    const at = (distanceMm: number) => {
      const base = newSetup('s', 'S', { backgrounds: [], people: [newPerson('a', 'A', { headYawDeg: 20 })] });
      return distanceSensitivity({
        setup: { ...base, camera: { ...base.camera, placement: { kind: 'distance', distanceMm } } },
        kit,
        stopStep,
        habits: defaultHabits
      });
    };
    expect(at(12_000)?.measuringMatters).toBe(false);
    expect(at(1500)?.measuringMatters).toBe(true);
    expect(at(1500)?.nearer.stops ?? 0).toBeGreaterThan(0);
    expect(at(1500)?.further.stops ?? 0).toBeLessThan(0);
  });

  it('is what planning again a tenth nearer and further gives, seen from the style’s own stop', () => {
    const base = newSetup('s', 'S', { backgrounds: [], people: [newPerson('a', 'A', { headYawDeg: 35 })] });
    const placed = (distanceMm: number): Setup => ({
      ...base,
      camera: { ...base.camera, placement: { kind: 'distance', distanceMm } },
      intent: { ...base.intent, stop: { kind: 'byStyle' } }
    });
    const chosen: Setup = { ...placed(2500), intent: { ...base.intent, stop: { kind: 'chosen', fNumber: 16 } } };
    const found = distanceSensitivity({ setup: chosen, kit, stopStep, habits: defaultHabits });
    const plan = (distanceMm: number) => {
      const result = planSetup({ setup: placed(distanceMm), kit, stopStep, habits: defaultHabits });
      if (result.kind === 'noPlan') throw new Error('no plan');
      return result;
    };
    const here = plan(2500);
    for (const [side, distanceMm] of [
      ['nearer', 2250],
      ['further', 2750]
    ] as const) {
      const there = plan(distanceMm);
      expect(found?.[side]).toEqual({
        distanceMm: expect.closeTo(distanceMm, 6) as number,
        stop: there.stops[there.recommended]?.stop.label,
        stops: expect.closeTo((there.recommended - here.recommended) / 2, 1) as number,
        oddsWithThisStop: there.stops[here.recommended]?.odds
      });
    }
  });

  it('matters when a tenth nearer nothing can be focused, and is not told of what cannot be planned', () => {
    const base = newSetup('s', 'S', { backgrounds: [] });
    const at = (distanceMm: number, changes: Partial<Setup> = {}): Setup => ({
      ...base,
      ...changes,
      camera: { ...base.camera, placement: { kind: 'distance', distanceMm } }
    });
    // The 85 focuses from 80 cm of the sensor on: 70 cm of the lens.
    const close = distanceSensitivity({ setup: at(760), kit, stopStep, habits: defaultHabits });
    expect(close?.nearer).toMatchObject({ stop: null, stops: 0, oddsWithThisStop: 0 });
    expect(close?.measuringMatters).toBe(true);
    expect(distanceSensitivity({ setup: at(2000, { people: [] }), kit, stopStep, habits: defaultHabits })).toBeNull();
  });
});
