import { expect, it } from 'vitest';
import { planSetup } from '../call/planSetup';
import { defaultHabits } from '../habits/habits';
import { builtInKit } from '../kit/builtInKit';
import { newPerson, newSetup } from '../setup/defaults';
import type { Person, Setup } from '../setup/schema';
import { eyesOf, prefocus, usualWay, whoPasses } from './prefocus';

const inputOf = (setup: Setup) => ({ setup, kit: builtInKit, stopStep: 'third', habits: defaultHabits }) as const;

function passing(changes: Partial<Person>, distanceMm = 5000): Setup {
  const base = newSetup('s', 'S', { people: [newPerson('a', 'Ada', changes)], backgrounds: [] });
  return { ...base, camera: { ...base.camera, heightMm: 1572, placement: { kind: 'distance', distanceMm } } };
}
const coming = passing({ towardsMmPerS: 1200 });

it('sets the ring between the two distances, by their harmonic mean, and takes the widest stop that covers both', () => {
  const found = prefocus(inputOf(coming), { fromMm: 4000, toMm: 5000 });
  expect(found).toMatchObject({ name: 'Ada', covers: true });
  // Hyperfocal arithmetic (Ray): s = 2ab/(a + b); of two eyes looking ahead nothing lies before or behind.
  expect(found?.focusMm).toBeCloseTo((2 * 4000 * 5000) / 9000, -1);
  expect(found?.nearMm).toBeLessThanOrEqual(4000);
  expect(found?.farMm).toBeGreaterThanOrEqual(5000);
  // A stop wider does not: stood at either end, their eyes are out of its depth of field.
  const stops = (distance: number) => {
    const setup = passing({}, distance);
    const target = { kind: 'distance', distanceMm: found?.focusMm ?? 0 } as const;
    const still: Setup = {
      ...setup,
      camera: { ...setup.camera, focusMethod: 'magnifier' },
      intent: { ...setup.intent, target }
    };
    const plan = planSetup(inputOf(still));
    if (plan.kind === 'noPlan') throw new Error(plan.reason.code);
    return plan.stops;
  };
  const sharpFrom = (distance: number) =>
    stops(distance).find(({ worst }) => worst.ratio <= 1)?.stop.fNumber ?? Infinity;
  expect(Math.max(sharpFrom(4000), sharpFrom(5000))).toBe(found?.stop.fNumber);
});

it('takes either end first, and says how far it comes where no stop covers all of it', () => {
  const there = prefocus(inputOf(coming), { fromMm: 5000, toMm: 4000 });
  expect(there).toEqual(prefocus(inputOf(coming), { fromMm: 4000, toMm: 5000 }));
  const long = prefocus(inputOf(coming), { fromMm: 1500, toMm: 12_000 });
  expect(long?.covers).toBe(false);
  // Not the smallest stop, where diffraction leaves no depth of field looked at closely, but the one that is sharp for longest.
  const near: Setup = { ...coming, intent: { ...coming.intent, viewing: { kind: 'close' } } };
  const closely = prefocus(inputOf(near), { fromMm: 1500, toMm: 12_000 });
  expect(closely?.stop.fNumber).toBeLessThan(16);
  expect((closely?.farMm ?? Infinity) - (closely?.nearMm ?? 0)).toBeGreaterThan(100);
  expect((long?.farMm ?? Infinity) - (long?.nearMm ?? 0)).toBeLessThan(10_500);
});

it('is for whoever moves: along the way before them, or a little to either side of where they cross', () => {
  expect(prefocus(inputOf(passing({})), { fromMm: 4000, toMm: 5000 })).toBeNull();
  const crossing = passing({ acrossMmPerS: 2000 });
  const person = whoPasses(crossing);
  if (!person) throw new Error('nobody passes');
  expect(usualWay(person, 5000)).toEqual({ fromMm: 4750, toMm: 5250 });
  expect(prefocus(inputOf(crossing), usualWay(person, 5000))?.covers).toBe(true);
  expect(usualWay(newPerson('b', 'B', { towardsMmPerS: 1200 }), 10_000)).toEqual({ fromMm: 8500, toMm: 10_000 });
  expect(usualWay(newPerson('b', 'B', { towardsMmPerS: 1200 }), 2000)).toEqual({ fromMm: 1400, toMm: 2000 });
  const both = { ...crossing, people: [...crossing.people, newPerson('b', 'B', { towardsMmPerS: -900 })] };
  expect(whoPasses(both)?.id).toBe('b');
  expect(
    eyesOf([
      { target: true, depth: 10 },
      { target: true, depth: 20 },
      { target: false, depth: 90 }
    ])
  ).toBe(15);
});
