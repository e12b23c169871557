import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { looseLenses } from '../testing/kit';
import { runs } from '../testing/runs';
import { builtInKit } from '../kit/builtInKit';
import { newBackground, newPerson, newSetup } from '../setup/defaults';
import type { Setup } from '../setup/schema';
import { grants, opensWindow } from './opens';
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
});
