import { describe, expect, it } from 'vitest';
import { builtInKit } from '../kit/builtInKit';
import { newBackground, newPerson, newSetup } from '../setup/defaults';
import { demoSetup } from '../job/demo';
import { framedHeightAt } from '../setup/framing';
import type { Body, Lens } from '../kit/schema';
import type { Setup } from '../setup/schema';
import { alternatives } from './alternatives';
import { lineUp, usefulFocalLengths } from './lineUp';
import { planSetup } from './planSetup';
import { defaultHabits } from '../habits/habits';
import { distanceSensitivity } from './sensitivity';

const kit = builtInKit;
const stopStep = 'half' as const;
const main = kit.bodies[0] as Body;
const lens = (id: string) => kit.lenses.find((item) => item.id === id) as Lens;
const demo = demoSetup;

describe('line-up', () => {
  const line = lineUp({ setup: demo('Under the palms'), kit, stopStep, habits: defaultHabits });

  it('has every lens, zooms at their useful focal lengths', () => {
    expect(usefulFocalLengths(lens('lens-24-70'))).toEqual([24, 28, 35, 50, 70]);
    expect(usefulFocalLengths(lens('lens-70-200'))).toEqual([70, 85, 105, 135, 200]);
    expect(usefulFocalLengths(lens('lens-85'))).toEqual([85]);
    expect(new Set(line.map((item) => item.lensId)).size).toBe(kit.lenses.length);
  });

  it('frames the same from wherever each lens stands', () => {
    for (const item of line) expect(framedHeightAt(item.setup.camera, main, item.distanceMm)).toBeCloseTo(1000, 6);
  });

  it('draws faces less alike from nearby: 1 + 125 mm/distance (geometry), which shows under about a metre', () => {
    const near = lineUp({ setup: demo('West door'), kit, stopStep, habits: defaultHabits }).find(
      (item) => item.focalLengthMm === 35
    );
    expect(near?.noseToEar).toBeCloseTo(1 + 125 / (near?.distanceMm ?? 1), 9);
    expect(near?.flattering).toBe(false);
    expect(line.at(-1)?.flattering).toBe(true);
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
    const tele = lineUp({ setup: demo('Family on the steps'), kit, stopStep, habits: defaultHabits }).find(
      (item) => item.lensId === 'lens-85'
    );
    expect(tele?.beyondRoomMm ?? 0).toBeCloseTo((tele?.distanceMm ?? 0) - 7000, 6);
    expect(tele?.beyondRoomMm ?? 0).toBeGreaterThan(1000);
  });
});

describe('alternatives', () => {
  it('list every eye, best first, and the call takes one that is as good as the best', () => {
    const setup = demo('Family on the steps');
    const { targets } = alternatives({ setup, kit, stopStep, habits: defaultHabits });
    const plan = planSetup({ setup, kit, stopStep, habits: defaultHabits });
    expect(targets).toHaveLength(28);
    const chosen = plan.kind === 'plan' ? plan.stops[plan.selected] : undefined;
    expect(chosen?.odds ?? 0).toBeGreaterThanOrEqual((targets[0]?.odds ?? 1) - 0.0151);
  });

  it('tell what the row rules would have chosen and what they cost', () => {
    const rows = (depths: number[]): Setup => {
      const base = newSetup('s', 'S', {
        backgrounds: [],
        people: depths.map((depthMm, i) => newPerson(`p${i}`, `P${i}`, { depthMm, lateralMm: (i % 2) * 400 }))
      });
      const placement = { kind: 'distance', distanceMm: 4000 } as const;
      return { ...base, camera: { ...base.camera, lensId: 'lens-50', focalLengthMm: 50, placement } };
    };
    const two = alternatives({ setup: rows([0, 0, 700, 1000, 1300]), kit, stopStep, habits: defaultHabits }).rowRules;
    expect(two.map((item) => item.rule)).toEqual(['frontRow', 'oneThirdIn']);
    expect(two[0]?.costStops ?? 0).toBeGreaterThan(0);
    const three = alternatives({
      setup: rows([0, 0, 900, 900, 1800, 1800]),
      kit,
      stopStep,
      habits: defaultHabits
    }).rowRules;
    expect(three[0]).toMatchObject({ rule: 'middleRow', rows: 3 });
    expect(three[0]?.target.focusDistanceMm).toBeCloseTo(4900, 0);
    expect(alternatives({ setup: rows([0, 10]), kit, stopStep, habits: defaultHabits }).rowRules).toEqual([]);
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
});
