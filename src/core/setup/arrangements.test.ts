import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { newPerson } from './defaults';
import { arrange, arrangementPlaces, arrangementSchema, type Arrangement } from './arrangements';
import { rowLine, rowsByDepth } from '../people/rows';

describe('arrangements', () => {
  it('make rows as even as can be, each on its riser, about the middle', () => {
    const places = arrangementPlaces({
      kind: 'rows',
      count: 14,
      rows: 3,
      spacingMm: 550,
      rowDepthMm: 800,
      riserMm: 170,
      staggered: false
    });
    const rows = rowsByDepth(places, (place) => place.depthMm);
    expect(rows.map((row) => row.length)).toEqual([5, 5, 4]);
    expect(rows.map((row) => row[0]?.floorMm)).toEqual([0, 170, 340]);
    for (const row of rows) expect(row.reduce((sum, place) => sum + place.lateralMm, 0)).toBeCloseTo(0, 6);
  });

  it('stagger the second row into the gaps of the first', () => {
    const places = arrangementPlaces({
      kind: 'rows',
      count: 10,
      rows: 2,
      spacingMm: 600,
      rowDepthMm: 700,
      riserMm: 0,
      staggered: true
    });
    const front = places.slice(0, 5).map((place) => place.lateralMm);
    for (const place of places.slice(5)) {
      expect(Math.min(...front.map((x) => Math.abs(x - place.lateralMm)))).toBeCloseTo(300, 0);
    }
  });

  it('lay an arc at its radius, ends nearest, faces inwards', () => {
    const places = arrangementPlaces({ kind: 'arc', count: 7, spacingMm: 600, radiusMm: 3000 });
    for (const place of places) {
      expect(Math.hypot(place.depthMm + 3000, place.lateralMm)).toBeCloseTo(3000, -1);
      expect(Math.sign(place.headYawDeg) * Math.sign(place.lateralMm)).toBeLessThanOrEqual(0);
    }
    expect(places[0]?.depthMm).toBeLessThan(places[3]?.depthMm ?? 0);
  });

  it('seat the front row, open a V, stand round a thing, pose a couple', () => {
    const seated = arrangementPlaces({ kind: 'seatedFront', count: 9, seated: 4, spacingMm: 600, rowDepthMm: 700 });
    expect(seated.filter((place) => place.posture === 'seated')).toHaveLength(4);
    expect(new Set(seated.slice(4).map((place) => place.depthMm))).toEqual(new Set([700]));
    const vee = arrangementPlaces({ kind: 'vee', count: 5, spacingMm: 600, angleDeg: 30 });
    expect(vee[0]?.depthMm).toBeCloseTo(1200 * Math.tan(Math.PI / 6), -1);
    expect(vee[2]?.depthMm).toBe(0);
    const around = arrangementPlaces({ kind: 'around', count: 8, radiusMm: 1000, spanDeg: 360 });
    for (const place of around) expect(Math.hypot(place.depthMm, place.lateralMm)).toBeCloseTo(1000, -1);
    expect(arrangementPlaces({ kind: 'couple', pose: 'embrace' }).every((place) => place.posture === 'embracing')).toBe(
      true
    );
  });

  it('place everybody asked for, whatever the numbers', () => {
    const anyArrangement: fc.Arbitrary<Arrangement> = fc.oneof(
      fc.record({
        kind: fc.constant('rows' as const),
        count: fc.integer({ min: 1, max: 200 }),
        rows: fc.integer({ min: 1, max: 20 }),
        spacingMm: fc.integer({ min: 100, max: 2000 }),
        rowDepthMm: fc.integer({ min: 0, max: 2000 }),
        riserMm: fc.integer({ min: 0, max: 500 }),
        staggered: fc.boolean()
      }),
      fc.record({
        kind: fc.constant('arc' as const),
        count: fc.integer({ min: 1, max: 200 }),
        spacingMm: fc.integer({ min: 100, max: 2000 }),
        radiusMm: fc.integer({ min: 300, max: 20_000 })
      })
    );
    fc.assert(
      fc.property(anyArrangement, (arrangement) => {
        expect(arrangementSchema.safeParse(arrangement).success).toBe(true);
        const places = arrangementPlaces(arrangement);
        expect(places).toHaveLength(arrangement.kind === 'couple' ? 2 : arrangement.count);
        expect(places.every((place) => Number.isFinite(place.depthMm) && Number.isFinite(place.lateralMm))).toBe(true);
      })
    );
  });

  it('move the people there are and leave the rest', () => {
    const people = [newPerson('a', 'A'), newPerson('b', 'B'), newPerson('c', 'C', { depthMm: 77 })];
    const posed = arrange(people, { kind: 'couple', pose: 'facing' });
    expect(posed[0]).toMatchObject({ name: 'A', lateralMm: -220, headYawDeg: 70 });
    expect(posed[2]).toEqual(people[2]);
  });
});

describe('rows', () => {
  it('are found by their step in depth and fitted by least squares', () => {
    expect(rowsByDepth([0, 100, 900, 1000, 2000], (z) => z)).toEqual([[0, 100], [900, 1000], [2000]]);
    const line = rowLine([0, 1, 2, 3].map((i) => ({ lateralMm: i * 100, depthMm: 50 + i * 20 })));
    expect(line.slope).toBeCloseTo(0.2, 9);
    expect(line.at).toBeCloseTo(50, 9);
  });
});
