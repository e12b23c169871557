import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { looseLenses } from '../testing/kit';
import { runs } from '../testing/runs';
import { builtInKit } from '../kit/builtInKit';
import { newBackground, newPerson, newSetup } from '../setup/defaults';
import type { Setup } from '../setup/schema';
import { bestFocusBetween } from '../optics/blur';
import { variedSetups } from '../testing/variedSetups';
import { canExpose } from './exposable';
import { meetsGoals, nearness, hasUsableWindow } from './usableWindow';
import type { StopPlan } from './plan';
import { planSetup, stopsOf } from './planSetup';
import { defaultHabits } from '../habits/habits';
import { prepare } from './planSetup';

describe('the quick look at a window', () => {
  const setups = fc
    .record({
      depth: fc.integer({ min: 0, max: 900 }),
      yaw: fc.integer({ min: -80, max: 80 }),
      behind: fc.integer({ min: -900, max: 5000 }),
      detailMm: fc.integer({ min: 5, max: 120 }),
      wish: fc.constantFrom('hide' as const, 'hint' as const, 'keep' as const),
      distanceMm: fc.integer({ min: 1300, max: 6000 }),
      lens: fc.constantFrom(...looseLenses),
      frames: fc.constantFrom('one' as const, 'two' as const),
      across: fc.constantFrom(0, 0, 300)
    })
    .map(({ depth, yaw, behind, detailMm, wish, distanceMm, lens, frames, across }): Setup => {
      const base = newSetup('s', 'S', {
        people: [
          newPerson('a', 'A', { headYawDeg: yaw, acrossMmPerS: across }),
          newPerson('b', 'B', { depthMm: depth, lateralMm: 300 })
        ],
        backgrounds: [newBackground('x', 'X', { depthMm: behind, detailMm, wish })]
      });
      const placement = { kind: 'distance', distanceMm } as const;
      return {
        ...base,
        camera: { ...base.camera, lensId: lens.id, focalLengthMm: lens.longestMm, placement },
        intent: { ...base.intent, frames }
      };
    });

  it('always agrees with the whole plan', () => {
    let open = 0;
    fc.assert(
      fc.property(
        setups,
        fc.constantFrom('everything' as const, 'faces' as const),
        fc.constantFrom(0, 0, 15),
        (setup, asked, biasUm) => {
          // A lens that is known to miss: its bias counts in both.
          const { bodyId, lensId, focusMethod: method } = setup.camera;
          const own = {
            bodyId,
            lensId,
            method,
            recomposed: false,
            biasUm,
            spreadUm: 9,
            frames: 30,
            learnedAt: null,
            focalLengthMm: null,
            stopShift: []
          };
          const habits = { ...defaultHabits, own: biasUm === 0 ? [] : [own] };
          const prepared = prepare({ setup, kit: builtInKit, stopStep: 'third', habits });
          const plan = planSetup({ setup, kit: builtInKit, stopStep: 'third', habits });
          if (prepared.kind === 'noPlan' || plan.kind === 'noPlan') {
            expect(prepared.kind).toBe(plan.kind);
            return;
          }
          const quick = hasUsableWindow(prepared, stopsOf(prepared.lens, 'third'), asked);
          expect(quick).toBe(plan.stops.some((entry) => meetsGoals(entry, asked)));
          if (asked === 'everything') expect(quick).toBe(plan.window !== null);
          if (quick) open += 1;
        }
      ),
      { numRuns: runs(250) }
    );
    // Both answers must have come up often enough to mean something.
    expect(open).toBeGreaterThan(runs(15) - 4);
    expect(open).toBeLessThan(runs(235));
  });

  const varied = [...variedSetups(48), ...variedSetups(48, true)].map((item) => ({
    ...item,
    stopStep: 'half' as const
  }));

  it('agrees with it also in setups of every sort, for the faces alone and for everything', () => {
    const told = { faces: new Set<boolean>(), everything: new Set<boolean>() };
    for (const input of varied) {
      const prepared = prepare(input);
      const plan = planSetup(input);
      if (prepared.kind === 'noPlan' || plan.kind === 'noPlan') continue;
      for (const asked of ['faces', 'everything'] as const) {
        const quick = hasUsableWindow(prepared, stopsOf(prepared.lens, 'half'), asked);
        expect(quick, `${input.setup.name} ${asked}`).toBe(plan.stops.some((entry) => meetsGoals(entry, asked)));
        told[asked].add(quick);
      }
    }
    expect([told.faces.size, told.everything.size]).toEqual([2, 2]);
  });

  it('asks every background, and light to take it by', () => {
    const entry = (met: readonly boolean[], missingStops = 0, facesHold = true) =>
      ({
        facesHold,
        backgrounds: met.map((item) => ({ met: item })),
        light: { missingStops, tooBrightStops: 0 }
      }) as unknown as StopPlan;
    expect(meetsGoals(entry([true, true]), 'everything')).toBe(true);
    expect(meetsGoals(entry([true, false]), 'everything')).toBe(false);
    expect(meetsGoals(entry([true, false]), 'faces')).toBe(true);
    expect(meetsGoals(entry([true, true], 2), 'everything')).toBe(false);
    expect(meetsGoals(entry([true, true], 0, false), 'faces')).toBe(false);
  });

  it('says how near a picture comes: as the plan would with the plane set evenly between the faces', () => {
    const finite = { faces: 0, everything: 0 };
    const never = { faces: 0, everything: 0 };
    for (const input of varied) {
      const { setup } = input;
      if (setup.intent.frames === 'two') continue;
      const prepared = prepare(input);
      if (prepared.kind === 'noPlan') continue;
      const situation = prepared;
      const [group] = situation.groups;
      if (!group) throw new Error('nobody');
      const target = { kind: 'distance', distanceMm: bestFocusBetween(group.nearest, group.furthest) } as const;
      const plan = planSetup({
        ...input,
        setup: { ...setup, intent: { ...setup.intent, target }, camera: { ...setup.camera, recompose: 'none' } },
        habits: defaultHabits
      });
      if (plan.kind === 'noPlan') continue;
      const exposed = plan.stops.filter((entry) => canExpose(entry));
      const nearest = {
        faces: exposed.map(({ worst }) => -worst.ratio),
        everything: exposed
          .filter(({ worst }) => worst.ratio <= 1.002)
          .map(({ backgrounds }) => -backgrounds.reduce((sum, { shortfallStops }) => sum + shortfallStops, 0))
      };
      for (const asked of ['faces', 'everything'] as const) {
        const comes = nearness(situation, stopsOf(situation.lens, 'half'), asked);
        const expected = Math.max(-Infinity, ...nearest[asked]);
        if (expected === -Infinity) {
          expect(comes, `${setup.name} ${asked}`).toBe(expected);
          never[asked] += 1;
        } else {
          expect(comes, `${setup.name} ${asked}`).toBeCloseTo(expected, 6);
          finite[asked] += 1;
        }
      }
    }
    for (const count of [finite.faces, finite.everything, never.faces, never.everything])
      expect(count).toBeGreaterThan(3);
  });

  it('with two frames is as far as the worse of the two', () => {
    const base = newSetup('s', 'S', {
      people: [newPerson('a', 'A'), newPerson('b', 'B', { depthMm: 900, lateralMm: 250 })]
    });
    const turned = { ...base.people[1], headYawDeg: 60 } as Setup['people'][number];
    const of = (people: Setup['people'], frames: 'one' | 'two' = 'one') => {
      const setup = { ...base, people, intent: { ...base.intent, frames } };
      const prepared = prepare({ setup, kit: builtInKit, stopStep: 'full', habits: defaultHabits });
      if (prepared.kind === 'noPlan') throw new Error('nothing');
      return nearness(prepared, stopsOf(prepared.lens, 'full').slice(0, 1), 'faces');
    };
    const both = [base.people[0] as Setup['people'][number], turned];
    const alone = both.map((person) => of([person]));
    expect(of(both, 'two')).toBeCloseTo(Math.min(...alone), 6);
    expect(Math.abs((alone[0] ?? 0) - (alone[1] ?? 0))).toBeGreaterThan(0.1);
  });

  /**
   * Found among 7,000 drawn by chance, in all of which both agreed: a background that is as wished at no stop with the plane
   * evenly between the faces, and at some stop where it comes to lie.
   */
  // prettier-ignore
  const onlyAside = [
    ['lens-24-70', 302, 12, 1306, 11, 'hide', 'magnifier', 'none', 2266, true],
    ['lens-24-70', 402, 52, 770, 2, 'hide', 'magnifier', 'none', 3776, false],
    ['lens-old-50', 86, 40, 1362, 10, 'hide', 'crossPoint', 'none', 2032, false],
    ['lens-old-50', 308, 11, 1018, 8, 'hide', 'crossPoint', 'none', 3970, true],
    ['lens-85', 221, 55, 631, 7, 'hide', 'magnifier', 'none', 3020, true],
    ['lens-50', 367, 5, 1227, 8, 'hide', 'crossPoint', 'none', 3804, true],
    ['lens-old-50', 179, 41, 1031, 12, 'hide', 'magnifier', 'none', 2825, true],
    ['lens-old-50', 163, 48, 682, 9, 'hide', 'magnifier', 'none', 2607, true],
    ['lens-50', 253, 28, 916, 11, 'hide', 'magnifier', 'waist', 2008, true],
    ['lens-50', 306, 54, 465, 5, 'hide', 'crossPoint', 'none', 2010, true],
    ['lens-85', 254, 12, 561, 7, 'hide', 'magnifier', 'none', 3695, true],
    ['lens-50', 297, 17, 1393, 13, 'hide', 'magnifier', 'none', 1746, true],
    ['lens-35', 407, 60, -434, 51, 'keep', 'magnifier', 'waist', 1505, false],
    ['lens-24-70', 488, 44, -279, 49, 'keep', 'magnifier', 'waist', 2295, false],
    ['lens-85', 485, 50, -493, 16, 'keep', 'magnifier', 'none', 3631, false],
    ['lens-70-200', 93, 33, -125, 6, 'keep', 'magnifier', 'waist', 3629, false],
    ['lens-old-50', 469, 20, -908, 27, 'keep', 'magnifier', 'none', 1781, true],
    ['lens-old-50', 350, 21, -750, 30, 'keep', 'magnifier', 'waist', 2638, false],
    ['lens-24-70', 257, 50, -250, 56, 'keep', 'crossPoint', 'none', 1984, false],
    ['lens-85', 229, 50, -400, 35, 'keep', 'crossPoint', 'none', 1630, true],
    ['lens-50', 345, 12, 1525, 39, 'hint', 'magnifier', 'none', 3322, false],
    ['lens-35', 403, 31, 319, 11, 'hint', 'magnifier', 'none', 2047, true],
    ['lens-50', 422, 54, 928, 49, 'hint', 'magnifier', 'waist', 2387, true],
    ['lens-24-70', 296, 9, 809, 32, 'hint', 'crossPoint', 'waist', 3696, true],
    ['lens-old-50', 287, 7, 563, 13, 'hint', 'magnifier', 'none', 3247, false],
    ['lens-50', 144, 20, 713, 30, 'hint', 'crossPoint', 'waist', 2953, false],
    ['lens-85', 339, 24, -1536, 6, 'hint', 'magnifier', 'waist', 2721, true],
    ['lens-50', 422, 6, 1103, 47, 'hint', 'magnifier', 'none', 1933, true],
    ['lens-35', 411, 17, 1566, 54, 'hint', 'crossPoint', 'waist', 3300, true],
    ['lens-50', 164, 11, 396, 13, 'hint', 'magnifier', 'waist', 2627, false],
    ['lens-50', 62, 10, 449, 51, 'hint', 'crossPoint', 'waist', 1473, true],
    ['lens-old-50', 359, 12, 597, 28, 'hint', 'crossPoint', 'none', 3306, true],
    ['lens-35', 163, 52, 293, 12, 'hint', 'crossPoint', 'none', 2459, false],
    ['lens-24-70', 99, 19, 371, 12, 'hint', 'magnifier', 'none', 2256, false],
    ['lens-35', 318, 52, 903, 42, 'hint', 'magnifier', 'none', 2082, true],
    ['lens-24-70', 316, 42, 1150, 44, 'hint', 'magnifier', 'none', 3510, true]
  ] as const;

  it.each(onlyAside)('sees what is granted only with the plane nearer or further: %s, %d mm deep', (...of) => {
    const [lensId, depthMm, headYawDeg, behind, detailMm, wish, focusMethod, recompose, distanceMm, small] = of;
    const base = newSetup('s', 'S', {
      people: [newPerson('a', 'A', { headYawDeg }), newPerson('b', 'B', { depthMm, lateralMm: 300 })],
      backgrounds: [newBackground('x', 'X', { depthMm: behind, detailMm, wish })]
    });
    const lens = builtInKit.lenses.find(({ id }) => id === lensId);
    if (!lens) throw new Error(lensId);
    const placement = { kind: 'distance', distanceMm } as const;
    const viewing = small
      ? ({ kind: 'seen', longEdgeMm: 150, distanceMm: 500, acuity: 'traditional' } as const)
      : ({ kind: 'traditional' } as const);
    const setup: Setup = {
      ...base,
      camera: { ...base.camera, lensId, focalLengthMm: lens.longestMm, focusMethod, recompose, placement },
      intent: { ...base.intent, viewing }
    };
    const prepared = prepare({ setup, kit: builtInKit, habits: defaultHabits, stopStep: 'half' });
    if (prepared.kind === 'noPlan') throw new Error(prepared.reason.code);
    expect(hasUsableWindow(prepared, stopsOf(lens, 'half'), 'everything')).toBe(true);
  });
});
