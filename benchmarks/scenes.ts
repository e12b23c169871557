/** The setups the benchmarks measure. Invented. */
import type { PlanInput } from '../src/core/call/planInput';
import { defaultHabits } from '../src/core/habits/habits';
import { builtInKit } from '../src/core/kit/builtInKit';
import { defaultCamera, newBackground, newPerson, newSetup } from '../src/core/setup/defaults';
import type { Kit } from '../src/core/kit/schema';
import type { Setup } from '../src/core/setup/schema';

/** A 50 mm lens from f/1.4 to f/22: 25 third stops. */
const longRange: Kit = {
  ...builtInKit,
  lenses: builtInKit.lenses.map((lens) =>
    lens.id === 'lens-50' ? { ...lens, widestFNumber: 1.4, smallestFNumber: 22 } : lens
  )
};

/** So many people in three rows before a hedge. */
export function group(count: number, changes: Partial<Setup> = {}): PlanInput {
  const perRow = Math.ceil(count / 3);
  const setup = newSetup('bench', 'Bench', {
    camera: {
      ...defaultCamera,
      lensId: 'lens-50',
      focalLengthMm: 50,
      placement: { kind: 'distance', distanceMm: 5200 }
    },
    people: Array.from({ length: count }, (_, i) =>
      newPerson(`p${i}`, `P${i}`, {
        depthMm: Math.floor(i / perRow) * 750,
        floorMm: Math.floor(i / perRow) * 170,
        lateralMm: ((i % perRow) - (perRow - 1) / 2) * Math.min(550, 6000 / perRow),
        headYawDeg: ((i % 5) - 2) * 8
      })
    ),
    backgrounds: [newBackground('b', 'hedge', { depthMm: 6000, detailMm: 40, wish: 'free' })],
    ...changes
  });
  return { setup, kit: longRange, stopStep: 'third', habits: defaultHabits };
}

/** The same with a hedge that must vanish and cannot: every remedy is looked for. */
export const conflicted: PlanInput = group(20, {
  backgrounds: [newBackground('b', 'hedge', { depthMm: 3500, detailMm: 30 })]
});

/** Eight lenses of one focal length each. */
export const eightLenses: PlanInput = {
  ...group(20),
  kit: {
    ...longRange,
    lenses: [24, 35, 50, 70, 85, 105, 135, 200].map((f) => {
      const [lens] = builtInKit.lenses;
      if (!lens) throw new Error('no lens');
      return {
        ...lens,
        id: `lens-${f}`,
        name: `${f} mm`,
        shortestMm: f,
        longestMm: f,
        widestFNumber: 1.8,
        smallestFNumber: 16
      };
    })
  }
};
