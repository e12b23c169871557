import { describe, expect, it } from 'vitest';
import { bestFocusBetween } from '../optics/blur';
import { variedSetups } from '../testing/variedSetups';
import { focusAt, meanPlane } from './focus';
import { peakOf, placesOf, triesAt, tryCandidate, type FocusPlaces, type TriedTarget } from './places';
import { prepare } from './planSetup';

const groups = [...variedSetups(24), ...variedSetups(24, true)].flatMap(({ setup, kit, habits }) => {
  const prepared = prepare({ setup, kit, habits, stopStep: 'full' });
  if (prepared.kind === 'noPlan') return [];
  const situation = prepared;
  return situation.groups.map((group) => ({ situation, group }));
});
const standings = ['ordinary', 'reluctant', 'beside'] as const;

describe('places by the planes they come to', () => {
  it('are one for each plane, from near to far, and every place has its own', () => {
    let several = 0;
    for (const { situation, group } of groups) {
      for (const standing of standings) {
        const all = standing === 'beside' ? group.beside : group.eyes.filter((item) => item.standing === standing);
        const places = placesOf(situation, group, standing);
        expect(places === undefined).toBe(all.length === 0);
        if (!places) continue;
        const at = places.planes.map((item) => meanPlane(situation, item));
        expect(at).toEqual([...at].sort((a, b) => a - b));
        expect(places.mostPreferred.map(({ candidate }) => candidate)).toEqual(all);
        for (const { candidate, at: index } of places.mostPreferred) {
          const stands = places.planes[index];
          if (!stands) throw new Error('no plane');
          expect(meanPlane(situation, stands)).toBeCloseTo(meanPlane(situation, candidate), 5);
          const { biasUm, stopShift, behindMm, leanMm, focusDistanceMm } = candidate;
          expect(stands).toMatchObject({ biasUm, stopShift, behindMm, leanMm, focusDistanceMm });
        }
        // None twice, and none that stands for nobody.
        expect(new Set(places.mostPreferred.map((item) => item.at)).size).toBe(places.planes.length);
        const kinds = all.map(({ biasMm, biasUm, stopShift, focusDistanceMm, behindMm, leanMm }) =>
          [biasMm.toFixed(6), biasUm, stopShift.length, focusDistanceMm, behindMm, leanMm].join(' ')
        );
        expect(places.planes.length).toBe(new Set(kinds).size);
        if (places.planes.length < all.length) several += 1;
        const even = 1 / bestFocusBetween(group.nearest, group.furthest);
        const off = at.map((plane) => Math.abs(1 / plane - even));
        expect(places.off).toBe(Math.min(...off));
        expect(off[places.evenest]).toBe(places.off);
      }
    }
    expect(several).toBeGreaterThan(3);
  });

  it('are tried once each, at the stop that is asked', () => {
    const { situation, group } = groups[0] ?? {};
    const places =
      situation && group && (placesOf(situation, group, 'ordinary') ?? placesOf(situation, group, 'reluctant'));
    if (!situation || !group || !places) throw new Error('no places');
    const N = situation.sharpness.widestFNumber * 2;
    const tryPlane = triesAt(situation, group, places, N);
    const [candidate] = places.planes;
    if (!candidate) throw new Error('no plane');
    expect(tryPlane(0)).toEqual(tryCandidate(situation, group, N, situation.light(N), candidate));
    expect(tryPlane(0)).toBe(tryPlane(0));
    expect(tryPlane(-1)).toBeUndefined();
    expect(tryPlane(places.planes.length)).toBeUndefined();
  });
});

describe('the best of some planes', () => {
  /** Odds, blur and depth of each plane; which is best, and which were tried. */
  function peak(planes: readonly (readonly [odds: number, ratio: number, plane?: number])[], evenest: number) {
    const asked: number[] = [];
    const best = peakOf({ evenest } as FocusPlaces, (at) => {
      const found = planes[at];
      if (!found) return undefined;
      asked.push(at);
      const [odds, worstRatio, plane = 1000 + at] = found;
      return { odds, worstRatio, focus: { plane }, at } as unknown as TriedTarget;
    });
    return { best: best && (best as unknown as { at: number }).at, asked };
  }

  it('is climbed to from the evenest, both ways, no further than the first that is less', () => {
    const planes = [0.2, 0.1, 0.5, 0.8, 0.6, 0.9].map((odds) => [odds, 1] as const);
    expect(peak(planes, 2)).toEqual({ best: 3, asked: [2, 1, 3, 4] });
    expect(peak([...planes].reverse(), 3)).toEqual({ best: 2, asked: [3, 2, 1, 4] });
    // As good is not better.
    expect(peak([[0.5, 1], [0.5, 0.5], [0.5, 0.1]], 1)).toEqual({ best: 1, asked: [1, 0, 2] }); // prettier-ignore
    expect(peak([], 0)).toEqual({ best: undefined, asked: [] });
  });

  it('goes by blur where nobody has odds to speak of', () => {
    const blurred = [3, 2, 1.5, 4].map((ratio) => [0.001, ratio] as const);
    expect(peak(blurred, 1)).toEqual({ best: 2, asked: [1, 0, 2, 3] });
    expect(peak([[0, 2], [0, 2]], 0)).toEqual({ best: 0, asked: [0, 1] }); // prettier-ignore
    // Odds to speak of count, however blurred; and what has them is not left for less blur.
    expect(peak([[0.0009, 1], [0.002, 9]], 0).best).toBe(1); // prettier-ignore
    expect(peak([[0.0005, 1], [0.002, 9]], 1).best).toBe(1); // prettier-ignore
  });

  it('looks past another point of the same place', () => {
    const same = [[0.3, 1, 2000], [0.2, 1, 2000], [0.6, 1, 2100]] as const; // prettier-ignore
    expect(peak(same, 0)).toEqual({ best: 2, asked: [0, 1, 2] });
    expect(peak([[0.3, 1, 2000], [0.2, 1, 2000.000001], [0.6, 1, 2100]], 0)).toEqual({ best: 0, asked: [0, 1] }); // prettier-ignore
  });

  it('is not looked for where the evenest is certain', () => {
    expect(peak([[0.9, 1], [1 - 1e-9, 1], [1, 1]], 1)).toEqual({ best: 1, asked: [1] }); // prettier-ignore
    expect(peak([[0.9, 1], [1 - 2e-9, 1], [1, 1]], 1)).toEqual({ best: 2, asked: [1, 0, 2] }); // prettier-ignore
  });
});

describe('a focus', () => {
  it('never comes to lie nearer than the lens can image, however far the plane is moved', () => {
    const [{ situation, group } = {}] = groups;
    const [candidate] = group?.eyes ?? [];
    if (!situation || !candidate) throw new Error('nobody');
    const N = situation.sharpness.widestFNumber;
    const { f, P } = situation;
    const at = (biasMm: number) => focusAt(situation, N, { ...candidate, biasMm }, situation.light(N)).plane;
    expect(at(-1e6)).toBe((f / P) * 1.001);
    expect(at(50) - at(0)).toBeCloseTo(50, 9);
  });
});
