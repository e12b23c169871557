import { describe, expect, it } from 'vitest';
import { rowsOf, type Placed } from './rows';

const person = (id: string, x: number, z: number, changes: Partial<Placed> = {}): Placed => ({
  id,
  x,
  y: 0,
  z,
  sd: 200,
  child: 0,
  ...changes
});
const names = (people: readonly Placed[]) => rowsOf(people).map(({ ids }) => [...ids].sort().join(''));

describe('rows', () => {
  it('are one where distances differ by no more than they are sure of', () => {
    expect(names([person('a', -600, 3900), person('b', 0, 4150), person('c', 600, 4300)])).toEqual(['abc']);
    expect(rowsOf([])).toEqual([]);
    expect(names([person('a', 0, 4000)])).toEqual(['a']);
  });

  it('are two where heads stand in the gaps of others, higher up and further away', () => {
    const front = ['a', 'b', 'c', 'd'].map((id, at) => person(id, at * 550, 4000 + 30 * at, { y: -300 }));
    const back = ['e', 'f', 'g', 'h'].map((id, at) => person(id, at * 550 + 270, 4800 - 40 * at));
    expect(names([...back, ...front])).toEqual(['abcd', 'efgh']);
  });

  it('do not count a child among standing people as a row of its own', () => {
    const row = ['a', 'b', 'c', 'd'].map((id, at) => person(id, at * 550, 4000 + 30 * at));
    const child = person('z', 1100 + 275 + 275 + 550, 4050, { y: -550, child: 0.8 });
    expect(names([...row, child])).toEqual(['abcdz']);
  });

  it('are as far apart as rows are, where faces alone would have them anywhere', () => {
    const far = (z: number, names: string, at: number) =>
      [...names].map((id, place) => person(id, place * 550 + at, z, { sd: 900, y: at === 0 ? -300 : 0 }));
    const rows = rowsOf([...far(9000, 'abcd', 0), ...far(10_600, 'efgh', 270)]);
    expect(rows).toHaveLength(2);
    const gap = (rows[1]?.z ?? 0) - (rows[0]?.z ?? 0);
    // Between what the faces say, 1.6 m, and what is usual, 0.8 m; surer than either row by itself.
    expect(gap).toBeGreaterThan(800);
    expect(gap).toBeLessThan(1300);
    const apart = Math.hypot(...(rows[1]?.off ?? []).map((mm, at) => mm - (rows[0]?.off[at] ?? 0)));
    expect(apart).toBeLessThan(rows[0]?.sd ?? 0);
  });

  it('are surer of their distance than any one of them', () => {
    const [row] = rowsOf(['a', 'b', 'c', 'd'].map((id, at) => person(id, at * 550, 4000)));
    expect(row?.z).toBeCloseTo(4000, 6);
    expect(row?.sd).toBeLessThan(200 / 1.7);
  });
});
