import { describe, expect, it } from 'vitest';
import { defaultHabits } from '../../habits/habits';
import { builtInKit } from '../../kit/builtInKit';
import { seededRandom } from '../../testing/random';
import { calibrationOf, guessScene, scored, scoresOf, type Guessed } from './guess';

const [body] = builtInKit.bodies;
const lens = builtInKit.lenses.find(({ id }) => id === 'lens-85');
if (!body || !lens) throw new Error('The kit has both.');
const asked = { body, lens, stopStep: 'third', habits: defaultHabits } as const;
const guess = (stop: readonly [number, number], blur: readonly [number, number] = [0.01, 0.02]): Guessed => ({
  stop: { from: stop[0], to: stop[1] },
  blur: { from: blur[0], to: blur[1] },
  answer: { fNumber: 4, blurShare: 0.015 }
});

describe('guess, then see', () => {
  it('draws pictures with an answer, never the same twice, and the same again from the same seed', () => {
    const scenes = Array.from({ length: 8 }, (_, seed) => guessScene({ ...asked, seed }));
    for (const scene of scenes) {
      expect(scene).not.toBeNull();
      if (!scene) continue;
      const at = scene.plan.stops.findIndex(({ stop }) => stop.fNumber === scene.answer.fNumber);
      // The first that holds: it does, and the one before does not.
      expect(scene.plan.stops[at]?.facesHold).toBe(true);
      expect(scene.plan.stops[at - 1]?.facesHold).toBe(false);
      expect(scene.answer.blurShare).toBeGreaterThan(0);
      expect(scene.plan.outOfFrame).toEqual([]);
    }
    expect(new Set(scenes.map((scene) => JSON.stringify(scene?.setup))).size).toBe(8);
    expect(guessScene({ ...asked, seed: 0 })?.setup).toEqual(scenes[0]?.setup);
  });

  it('is scored by width, and by twenty times what lies outside', () => {
    // Gneiting and Raftery 2007, eq. 43, alpha 0.1: (u − l) + 2/α (l − x) below, by hand.
    const plain = (value: number) => value;
    expect(scored({ from: 2, to: 5 }, 3, plain)).toMatchObject({ held: true, width: 3, score: 3, off: 0.5 });
    const missed = scored({ from: 2, to: 5 }, 6, plain);
    expect(missed).toMatchObject({ held: false, width: 3 });
    expect(missed.score).toBeCloseTo(3 + 20 * (1 - 0.02), 9);
    expect(scored({ from: 5, to: 2 }, 3, plain)).toMatchObject({ held: true, width: 3 });
    // In stops: f/2.8 to f/5.6 are two; a disc twice as large is two.
    const { stop, blur } = scoresOf(guess([2 * Math.SQRT2, 4 * Math.SQRT2]));
    expect(stop.width).toBeCloseTo(2, 9);
    expect(blur.width).toBeCloseTo(2, 9);
    expect(scoresOf(guess([5.6, 8])).stop.off).toBeGreaterThan(0);
    expect(scoresOf(guess([4, 4], [0.001, 0.002])).blur.off).toBeGreaterThan(0);
  });

  it('nobody gains by saying more or less than they know', () => {
    // The answer is normal about what one thinks: of all half-widths, 1.645 deviations costs least.
    const random = seededRandom(2);
    const truths = Array.from(
      { length: 4000 },
      () => Math.sqrt(-2 * Math.log(1 - random())) * Math.cos(2 * Math.PI * random())
    );
    const cost = (half: number) =>
      truths.reduce((sum, truth) => sum + scored({ from: -half, to: half }, truth, (value) => value).score, 0);
    const halves = [0.8, 1.2, 1.645, 2.1, 2.6];
    const costs = halves.map(cost);
    expect(costs.indexOf(Math.min(...costs))).toBe(2);
  });

  it('says how many held, with Wilson’s interval, and nothing after a few', () => {
    expect(calibrationOf([guess([2.8, 5.6])])).toBeNull();
    const five = [guess([2.8, 5.6]), guess([2.8, 4]), guess([5.6, 8]), guess([1.4, 2]), guess([4, 4])];
    const found = calibrationOf(five);
    expect(found?.held).toMatchObject({ count: 8, of: 10 });
    expect(found?.stop.off).toBeCloseTo(0, 1);
  });
});
