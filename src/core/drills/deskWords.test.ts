import { describe, expect, it } from 'vitest';
import { calibrationOf, scoresOf, type Guessed } from './desk/guess';
import type { ModeShot } from './desk/mode';
import { blurShareWords, calibrationWords, fortnightWords, guessSaid, modeSaid, modesSaid } from './deskWords';

const shot = (changes: Partial<ModeShot>): ModeShot => ({
  kept: 40,
  moments: 40,
  frames: 40,
  lost: { elsewhere: 0, moved: 0, missed: 0, blinked: 0 },
  mostlyOn: null,
  ...changes
});
const best = { choice: { mode: 'continuous', area: 'point', point: 'onEye', drive: 'burst' }, odds: 0.93 } as const;
const guess = (stop: readonly [number, number], blur: readonly [number, number]): Guessed => ({
  stop: { from: stop[0], to: stop[1] },
  blur: { from: blur[0], to: blur[1] },
  answer: { fNumber: 4, blurShare: 0.015 }
});

describe('the drills at the desk, in words', () => {
  it('say what was kept, what lost the rest, and the best way', () => {
    const lost = { elsewhere: 1, moved: 12, missed: 0, blinked: 2 };
    const said = modeSaid(shot({ kept: 25, frames: 200, lost, mostlyOn: 'leaves' }), best, () => 'the leaves');
    expect(said.title).toBe('25 of 40 moments kept.');
    expect(said.detail).toBe(
      '12 times someone had moved before the shutter opened; twice eyes were closed; once focus went elsewhere, mostly to the leaves. 200 frames to look through.'
    );
    expect(said.next).toBe('Best here: continuous AF, single point, moved onto the eye; 93 of 100 frames sharp.');
    expect(modeSaid(shot({}), best, String).detail).toBe('None was lost.');
    expect(modesSaid([shot({ kept: 28, lost }), shot({})])).toMatchObject({ title: '68 of 80 moments kept.' });
    expect(modesSaid([shot({ kept: 28, lost })]).next).toMatch(/movement after focusing/);
    expect(modesSaid([shot({})]).next).toMatch(/^Nothing was lost/);
  });

  it('say where an answer lies against a guess', () => {
    const one = guess([4, 5.6], [0.01, 0.02]);
    expect(guessSaid(one, scoresOf(one))).toEqual({
      stop: 'f/4 keeps everyone sharp: in your range.',
      blur: 'The background’s disc is 1.5% of the height: in your range.'
    });
    const wide = guess([1.4, 2.8], [0.02, 0.04]);
    expect(guessSaid(wide, scoresOf(wide)).stop).toContain('you would have missed someone');
    expect(guessSaid(wide, scoresOf(wide)).blur).toContain('smaller than you guessed');
    const closed = guess([8, 11], [0.001, 0.002]);
    expect(guessSaid(closed, scoresOf(closed)).stop).toContain('closed further than needed');
    expect(guessSaid(closed, scoresOf(closed)).blur).toContain('larger than you guessed');
    expect(blurShareWords(0.0052)).toBe('0.52% of the height');
  });

  it('say what two weeks rest on', () => {
    expect(fortnightWords({ frames: 0, weak: [] }, false)).toMatch(/^No frames in your Record yet/);
    expect(fortnightWords({ frames: 9, weak: [] }, false)).toMatch(/^None of the 9 frames/);
    const weak = [
      { weakness: 'turning', lost: 12, of: 84 },
      { weakness: 'depth', lost: 9, of: 84 }
    ] as const;
    expect(fortnightWords({ frames: 84, weak }, false)).toBe(
      'Of the 84 frames of your record 21 were soft, 12 because the camera was turned after focusing.'
    );
    expect(fortnightWords({ frames: 84, weak: weak.slice(1) }, true)).toContain(
      '84 simulated frames of your record 9 were soft, all because'
    );
  });

  it('say whether ranges hold as often as they should', () => {
    const said = (guesses: readonly Guessed[]) => {
      const found = calibrationOf(guesses);
      return found && calibrationWords(found);
    };
    const of = (one: Guessed) => Array.from({ length: 10 }, () => one);
    expect(said(of(guess([5.6, 5.6], [0.03, 0.031])))?.next).toContain('make the ranges wider');
    expect(said(of(guess([5.6, 5.6], [0.03, 0.031])))?.title).toBe(
      '0 of 20 ranges held the answer; nine in ten were to.'
    );
    expect(said([...of(guess([4, 4], [0.01, 0.02])), ...of(guess([4, 4], [0.01, 0.02]))])?.next).toContain('narrower');
    expect(said(of(guess([4, 8], [0.01, 0.02])))?.next).toContain('Open 1.0 stops');
  });
});
