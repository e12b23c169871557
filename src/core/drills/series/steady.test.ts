import { describe, expect, it } from 'vitest';
import { seededNormal } from '../../testing/random';
import { runs } from '../../testing/runs';
import { leastHeld, steadyOf, type HandheldFrame } from './steady';

const f = 85;
const atShareOne = 0.03 * f;
const times = [1 / 4, 1 / 2, 1, 2, 4].map((about) => about / f);
const leastMm = 0.012;
const held = (share: number, sd: number, normal: () => number): HandheldFrame[] =>
  times.flatMap((shutterS) =>
    Array.from({ length: 3 }, () => {
      const discMm = share * atShareOne * shutterS * Math.exp(sd * normal());
      return { shutterS, leastMm, discMm: discMm > leastMm ? discMm : null };
    })
  );

describe('how steady somebody holds', () => {
  it('holds the share in its interval nine times in ten (300 seeded runs)', () => {
    const normal = seededNormal(8);
    const [wanted, usual] = [runs(300), 0.65];
    let [inside, told] = [0, 0];
    while (told < wanted) {
      // Those who show nothing are told nothing: they do not count.
      const share = usual * Math.exp(0.9 * normal());
      const found = steadyOf(held(share, 0.35, normal), usual, atShareOne, 0.03);
      if (!found) continue;
      told++;
      if (found.share.low <= share && share <= found.share.high) inside++;
    }
    expect(Math.abs(inside / wanted - 0.9)).toBeLessThanOrEqual(0.03 * Math.sqrt(1000 / wanted));
  });

  it('says from which time on it shows: where the disc is as large as is allowed', () => {
    const normal = seededNormal(2);
    const found = steadyOf(held(0.5, 0.2, normal), 0.65, atShareOne, 0.03);
    // Share one half: at twice 1/f, by hand.
    expect(found?.showsFromS.low).toBeLessThan(2 / f);
    expect(found?.showsFromS.high).toBeGreaterThan(2 / f);
    expect((found?.showsFromS.value ?? 0) * f).toBeCloseTo(2, 0);
    expect(found?.byTime.map(({ times: all }) => all)).toEqual([3, 3, 3, 3, 3]);
    const seen = found?.byTime.map((one) => one.seen) ?? [];
    expect([...seen].sort((a, b) => a - b)).toEqual(seen);
  });

  it('learns from what was too short to be seen, and says nothing of too few', () => {
    const shown = (share: number) =>
      times.map((shutterS) => ({ shutterS, leastMm, discMm: share * atShareOne * shutterS }));
    const hidden = times.slice(0, 3).map((shutterS) => ({ shutterS, leastMm, discMm: null }));
    const [more, less] = [
      steadyOf(shown(0.9).concat(shown(0.9)), 0.65, atShareOne, 0.03),
      steadyOf([...shown(0.9), ...hidden, ...hidden], 0.65, atShareOne, 0.03)
    ];
    expect(less?.share.value).toBeLessThan(more?.share.value ?? 0);
    expect(steadyOf(shown(1).slice(0, leastHeld.frames - 1), 0.65, atShareOne, 0.03)).toBeNull();
    expect(steadyOf([...hidden, ...hidden, ...hidden], 0.65, atShareOne, 0.03)).toBeNull();
  });
});
