import { describe, expect, it } from 'vitest';
import { findPlane, type PlaneAsked } from '../frames/plane';
import { blurDiscDiameter } from '../optics/blur';
import { recordedFrame } from '../testing/recorded';
import { seededNormal, seededRandom } from '../testing/random';
import { runs } from '../testing/runs';
import { personOffsetOf } from './personOffsets';
import { personFigures } from './groups';
import { learnMovement, learnSways, type Movement, type PersonPlacement } from './persons';

const within = (held: number, times: number) =>
  // 870 to 930 of 1,000; fewer runs scatter more.
  expect(Math.abs(held / times - 0.9)).toBeLessThanOrEqual(0.03 * Math.sqrt(1000 / times));

describe('where somebody stands against the plan', () => {
  const camera = { focalLengthMm: 135, fNumber: 2, pupilMagnification: 1, pxPerMm: 8000 / 36 };
  const disc = (depth: number, plane: number) => blurDiscDiameter(135, 2, plane, depth, 1) * camera.pxPerMm;
  /** Three rows; whoever stands in the last is `moved` further away than planned, and another plane takes all of them along. */
  const askedOf = (moved: number, plane: number, noise: () => number, distance = 3000): PlaneAsked => ({
    features: [distance, distance + 300, distance + 600].flatMap((depthMm, index) =>
      [0, 20].map((further) => {
        const eye = depthMm + further;
        const discPx = Math.hypot(disc(eye + (index === 2 ? moved : 0), plane), 0.8) + 0.5 * noise();
        return { of: `face${index}`, depthMm: eye, depthSdMm: 4, discPx: Math.max(0, discPx), sdPx: 0.7 };
      })
    ),
    ...camera,
    meantMm: distance + 300,
    spreadMm: 15,
    elsewhereMm: [distance, distance + 600]
  });
  const placed = (asked: PlaneAsked) => {
    const plane = findPlane(asked);
    if (!plane) throw new Error('nothing found');
    return personOffsetOf(asked.features, plane, asked);
  };

  it('is told beside the others, wherever the plane fell', () => {
    const normal = seededNormal(5);
    for (const [moved, plane] of [
      [0, 3300],
      [40, 3300],
      [-40, 3320],
      [25, 3270]
    ] as const) {
      const found = placed(askedOf(moved, plane, normal));
      const [first, last] = [found.get('face0'), found.get('face2')];
      if (!first || !last) throw new Error('not placed');
      expect(Math.abs(last.mm - first.mm - moved)).toBeLessThan(3 * Math.hypot(first.sdMm, last.sdMm));
      expect(last.sdMm).toBeLessThan(8);
    }
  });

  it('is not told where a millimetre makes too little, or where the side is open', () => {
    const still = () => 0;
    expect(placed({ ...askedOf(0, 3300, still), fNumber: 11 }).size).toBe(0);
    // Alone and off the plane: before it or behind, nobody knows.
    const one = askedOf(0, 3300, still);
    const alone = { ...one, features: one.features.slice(2, 3).map((eye) => ({ ...eye, discPx: 9 })), elsewhereMm: [] };
    expect(placed(alone).size).toBe(0);
    // … in it, there is nothing to know.
    const there = { ...alone, features: alone.features.map((eye) => ({ ...eye, discPx: 0.6 })) };
    expect(placed(there).size).toBe(1);
  });
});

interface Drawn {
  readonly sways: readonly number[];
  readonly frames: number;
  readonly tau: number;
  readonly normal: () => number;
}
/** People who sway so much, mm after a second, in two setups: each stands elsewhere than planned, and the plane falls anywhere. */
function drawn({ sways, frames, tau, normal }: Drawn): PersonPlacement[] {
  return ['one', 'two'].flatMap((setup) => {
    const stood = sways.map(() => 60 * normal());
    return Array.from({ length: frames / 2 }, (_, frame) => {
      const plane = 80 * normal();
      return sways.map((sway, index): PersonPlacement => {
        const scale = setup === 'one' ? 1 : Math.SQRT1_2;
        const mm = plane + (stood[index] ?? 0) + sway * scale * normal() + tau * normal();
        const focusing = `${setup}${frame}`;
        return { person: String(index), setup, focusing, mm, otherMm: null, sdMm: tau, scale, usualMm: 5, weight: 1 };
      });
    }).flat();
  });
}

describe('somebody’s own sway', () => {
  it('lies in its interval nine times in ten, drawn from what is expected (300 seeded runs)', () => {
    const normal = seededNormal(11);
    const times = runs(300);
    let held = 0;
    for (let run = 0; run < times; run++) {
      const sways = [0, 1, 2].map(() => 5 * Math.exp(0.5 * normal()));
      const [first] = learnSways(drawn({ sways, frames: 12, tau: 3, normal }));
      if (first && first.swayMm.low <= (sways[0] ?? 0) && (sways[0] ?? 0) <= first.swayMm.high) held++;
    }
    within(held, times);
  });

  it('comes out with many frames, whoever stands beside', () => {
    const sways = [2.5, 5, 12];
    const found = learnSways(drawn({ sways, frames: 400, tau: 2, normal: seededNormal(12) }));
    found.forEach(({ swayMm, frames, usualMm }, index) => {
      const truth = sways[index] ?? 0;
      expect(swayMm.low).toBeLessThan(truth);
      expect(swayMm.high).toBeGreaterThan(truth);
      // Who sways most is told best; who sways least is lost in the others.
      expect(swayMm.high / swayMm.low).toBeLessThan(index === 0 ? 3 : 1.6);
      expect([frames, usualMm.toFixed(6)]).toEqual([400, '5.000000']);
    });
  });

  it('is not told of who is alone, and counts the frames of one focusing once', () => {
    const frames = drawn({ sways: [5, 5], frames: 20, tau: 2, normal: seededNormal(13) });
    expect(learnSways(frames.filter(({ person }) => person === '0'))).toEqual([]);
    const once = learnSways(frames.map((one) => ({ ...one, focusing: `${one.setup} all` })));
    expect(once.map((one) => one.frames)).toEqual([2, 2]);
    expect(() => learnSways([{ ...(frames[0] as PersonPlacement), mm: NaN }])).toThrow(RangeError);
  });
});

describe('somebody’s movement across', () => {
  const speedAt = (scale: number, normal: () => number, leastMmPerS: number): Movement => {
    const mmPerS = Math.abs(scale * normal());
    return { mmPerS: mmPerS > leastMmPerS ? mmPerS : null, leastMmPerS, weight: 1 };
  };

  it('lies in its interval nine times in ten, though slow ones do not show (300 seeded runs)', () => {
    const normal = seededNormal(21);
    const times = runs(300);
    let held = 0;
    for (let run = 0; run < times; run++) {
      const scale = 40 * Math.exp(normal());
      const learned = learnMovement(Array.from({ length: 20 }, (_, at) => speedAt(scale, normal, 20 + 5 * (at % 8))));
      if (learned.low <= scale && scale <= learned.high) held++;
    }
    within(held, times);
  });

  it('never seen is slower than what would have shown', () => {
    const still = { mmPerS: null, leastMmPerS: 50, weight: 1 };
    expect(learnMovement(Array.from({ length: 40 }, () => still)).high).toBeLessThan(40);
    expect(() => learnMovement([{ ...still, leastMmPerS: 0 }])).toThrow(RangeError);
  });
});

describe('the record', () => {
  it('has sway and movement by job and person, of complete imports, where enough is known', () => {
    const normal = seededNormal(31);
    const random = seededRandom(32);
    const places = drawn({ sways: [3, 12, 5], frames: 40, tau: 2, normal });
    const frames = [...new Set(places.map(({ focusing }) => focusing))].map((focusing) =>
      recordedFrame(focusing, {
        setupId: focusing.slice(0, 3),
        people: places
          .filter((one) => one.focusing === focusing)
          .map(({ person, mm, otherMm, sdMm, scale, usualMm }) => ({
            id: person,
            name: ['Ines', 'Wren', 'Petra'][Number(person)] ?? '',
            sharp: true,
            placed: { mm, otherMm, sdMm, scale, usualMm },
            movement: { mmPerS: person === '1' && random() < 0.2 ? 200 : null, leastMmPerS: 100 }
          }))
      })
    );
    const asked = { nowMs: 0, halfLifeDays: null };
    const [ines, wren] = personFigures(frames, asked);
    expect(ines).toMatchObject({ jobId: 'job', name: 'Ines', movement: null, sway: { frames: 40 } });
    expect(wren?.movement?.of).toBe(40);
    expect(ines?.sway?.swayMm.high).toBeLessThan(wren?.sway?.swayMm.low ?? 0);
    expect(personFigures(frames.slice(0, 6), asked).flatMap(({ sway }) => sway ?? [])).toEqual([]);
    const kept = frames.map((frame) => ({ ...frame, complete: false }));
    expect(personFigures(kept, asked)).toEqual([]);
  });
});
