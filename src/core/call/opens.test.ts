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
import { grants, nearness, opensWindow } from './opens';
import type { StopPlan } from './plan';
import { planSetup, stopsOf } from './planSetup';
import { defaultHabits } from '../habits/habits';
import { prepare } from './situation';

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
          const quick = opensWindow(prepared.situation, stopsOf(prepared.situation.lens, 'third'), asked);
          expect(quick).toBe(plan.stops.some((entry) => grants(entry, asked)));
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
        const quick = opensWindow(prepared.situation, stopsOf(prepared.situation.lens, 'half'), asked);
        expect(quick, `${input.setup.name} ${asked}`).toBe(plan.stops.some((entry) => grants(entry, asked)));
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
    expect(grants(entry([true, true]), 'everything')).toBe(true);
    expect(grants(entry([true, false]), 'everything')).toBe(false);
    expect(grants(entry([true, false]), 'faces')).toBe(true);
    expect(grants(entry([true, true], 2), 'everything')).toBe(false);
    expect(grants(entry([true, true], 0, false), 'faces')).toBe(false);
  });

  it('says how near a picture comes: as the plan would with the plane set evenly between the faces', () => {
    const finite = { faces: 0, everything: 0 };
    const never = { faces: 0, everything: 0 };
    for (const input of varied) {
      const { setup } = input;
      if (setup.intent.frames === 'two') continue;
      const prepared = prepare(input);
      if (prepared.kind === 'noPlan') continue;
      const { situation } = prepared;
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
      return nearness(prepared.situation, stopsOf(prepared.situation.lens, 'full').slice(0, 1), 'faces');
    };
    const both = [base.people[0] as Setup['people'][number], turned];
    const alone = both.map((person) => of([person]));
    expect(of(both, 'two')).toBeCloseTo(Math.min(...alone), 6);
    expect(Math.abs((alone[0] ?? 0) - (alone[1] ?? 0))).toBeGreaterThan(0.1);
  });
});
