import { describe, expect, it } from 'vitest';
import { focusResult } from '../bench/focusTest';
import type { FocusShot } from '../bench/schema';
import { stopVerdict, type StopRow } from '../bench/stopSeries';
import { errorUm } from '../record/observe';
import { seededNormal } from '../testing/random';
import type { FieldCurve } from '../bench/fieldCurve';
import {
  edgeProblemWords,
  fieldWords,
  focusProblemWords,
  focusWords,
  lostWords,
  focusOffsetText,
  overshootWords,
  shortLength,
  spotPlace,
  spotsWords,
  standingWords,
  stopsWords,
  toneWords
} from './bench';

const um = (mm: number) => errorUm({ focalLengthMm: 85, pupilMagnification: 1, meantMm: 2100 }, 2100 + mm);
const normal = seededNormal(3);
const shots = (mm: number, spreadMm: number, count = 12): FocusShot[] =>
  Array.from({ length: count }, (_, index) => {
    const offsetMm = mm + spreadMm * normal();
    return {
      file: 'a.jpg',
      takenMs: 0,
      from: index % 2 ? 'far' : 'near',
      distanceMm: 2100,
      offsetMm,
      sdMm: 0.3,
      offsetUm: um(offsetMm),
      sdUm: 0.5
    };
  });
const told = { lens: '85 mm f/1.4', f: 85, distanceMm: 2100, unit: 'metric', frames: 12, allowedUm: 42 } as const;
const said = (of: readonly FocusShot[]) => focusWords(focusResult(of, 10, 42), { ...told, frames: of.length });

describe('the Bench in words', () => {
  it('says how far, which way, how sure, and what to try', () => {
    const behind = said(shots(9, 1.5));
    expect(behind.title).toBe('85 mm f/1.4 back-focuses 9 mm, consistently.');
    expect(behind.detail).toMatch(/^12 frames at 2.1 m: 9 mm behind, ±\d(\.\d)? mm \(90% range\); scatter /);
    expect(behind.advice).toContain('move focus forward: correct about half');
    expect(said(shots(-9, 1.5)).advice).toContain('move focus back');
    expect(said(shots(0.1, 1)).title).toBe('85 mm f/1.4 is on target.');
    expect(said(shots(1, 20)).advice).toContain('AF fine-tune won’t help');
    expect(said(shots(9, 2, 2)).title).toContain('too few frames');
    expect(said(shots(9, 2, 2)).more).toMatch(/more frames would narrow/);
    const two = [...shots(9, 1, 6), ...shots(1, 1, 6).map((one) => ({ ...one, distanceMm: 5000 }))];
    expect(said(two).advice).toContain('changes with distance');
  });

  it('says lengths in millimetres where they count, and what share of frames is lost', () => {
    expect([shortLength(0.44, 'metric'), shortLength(9.4, 'metric'), shortLength(230, 'metric')]).toEqual(['0.4 mm', '9 mm', '23 cm']); // prettier-ignore
    expect(focusOffsetText(um(-9), 85, 2100, 'metric')).toBe('9 mm in front');
    const estimate = (value: number) => ({ value, low: value, high: value });
    // Two tails of a normal beyond one deviation: 0.317.
    expect(lostWords({ bias: estimate(0), sd: estimate(42) }, 42)).toContain('3 frames in 10');
    expect(lostWords({ bias: estimate(0), sd: estimate(21) }, 42)).toContain('1 frame in 22');
    expect(lostWords({ bias: estimate(60), sd: estimate(5) }, 42)).toContain('Most frames');
    expect(lostWords({ bias: estimate(0), sd: estimate(5) }, 42)).toContain('Hardly a frame');
  });

  const sharp = (lpPerMm: number) => ({ lpPerMm, standing: null, lying: null, risePx: 1.5, edges: 4, sd: 0 });
  const row = (fNumber: number, centre: number, corner: number): StopRow => ({
    fNumber,
    frames: 1,
    overshoot: 0,
    middle: null,
    centre: sharp(centre),
    corner: sharp(corner)
  });
  it('says which stop is best where, and which lose how much', () => {
    const words = stopsWords(
      stopVerdict([row(1.8, 30, 14), row(2.8, 50, 26), row(4, 62, 40), row(5.6, 60, 48), row(16, 33, 28)], 0.006)
    );
    expect(words.title).toBe('Best at f/4 in the centre, f/5.6 to the corners.');
    expect(words.detail).toBe(
      'It loses in the centre 52% at f/1.8, in the corners up to 71% from f/1.8 to f/2.8. Keep faces out of the corners there.'
    );
    expect(stopsWords(stopVerdict([row(2, 50, 45), row(4, 55, 50)], 0.006)).detail).toBe(
      'No aperture is weak anywhere.'
    );
    expect(stopsWords(stopVerdict([row(2, 5, 4)], 0.006)).title).toContain('can’t show how good the lens is');
    expect(overshootWords(0.123)).toContain('12%');
    expect(toneWords({ exponent: 1.05, shift: 0.001 })).toBe('');
    expect(toneWords({ exponent: 1.34, shift: -0.031 })).toContain(
      '(exponent 1.3). That is undone, which makes the figures 3% lower.'
    );
    expect(toneWords(null)).toMatch(/^Couldn’t read the grey steps/);
  });

  it('says what a frame lacks, and by how much', () => {
    const lacks = (problem: Parameters<typeof focusProblemWords>[0]['problem'], by: number | null) =>
      focusProblemWords({ problem, by }, 'metric');
    expect(lacks('small', 1234)).toContain('go nearer, to 1.2 m');
    expect(lacks('askew', 5.7)).toContain('is turned 6°. Square it');
    expect(lacks('dark', 3.4)).toContain('expose 3.5 stops more');
    expect(lacks('dark', 0.9)).toContain('expose a stop more');
    expect(lacks('shortFront', 61)).toContain('Move that half 61 mm towards the lens');
    expect(lacks('flat', 8.2)).toContain('leans by 8° only');
    expect(edgeProblemWords({ problem: 'askew', by: 3.26 })).toContain('3.3° out of square');
  });

  it('says what is askew in a frame that can be measured, and nothing where all is well', () => {
    const standing = (turn: readonly [number, number, number], y = 0) =>
      standingWords(
        { turnDeg: { aside: turn[0], back: turn[1], roll: turn[2] }, aimFrom: { x: 0, y }, distanceMm: 2000 },
        12,
        85,
        'metric'
      );
    expect(standing([0.5, -0.5, 1])).toEqual([]);
    expect(standing([1.6, 0, 0])[0]).toContain('its right side stands further away');
    expect(standing([0, -1.8, 0])[0]).toContain('leans 1.8° forward');
    expect(standing([0, 0, -3])[0]).toContain('3° off level');
    // Half the picture is 282 mm high there; four tenths of it 113.
    expect(standing([0, 0, 0], 100)).toEqual([]);
    expect(standing([0, 0, 0], 130)[0]).toMatch(/lies 13 cm under .* lower the camera/);
  });

  it('says how the ends of a row are to stand, or that nothing can be told', () => {
    const row = { f: 35, widthMm: 36, distanceMm: 3000, unit: 'metric' } as const;
    const curve = (value: number, half: number): FieldCurve => ({
      perM: { value, low: value - half, high: value + half },
      by: 'moving',
      distanceMm: 1400,
      places: [],
      frames: 9
    });
    // By hand: tangent 0.8 × 18/35 = 0.411; 1/z = 1/3000 + 0.15e-3 × 0.169, z = 2788.
    expect(fieldWords(curve(0.15, 0.02), row).title).toBe('For this lens bring the ends of a row 21 cm forward.');
    expect(fieldWords(curve(-0.1, 0.02), row).title).toMatch(/let the ends of a row 1[67] cm back/);
    expect(fieldWords(curve(0.01, 0.02), row).title).toContain('flat, as far as this can tell');
  });

  it('counts spots, and says from which stop on they show', () => {
    const words = (...stops: readonly number[]) => spotsWords({ spots: stops.map((showsFrom) => ({ showsFrom })) }, 11);
    expect(words().title).toBe('No dust found.');
    expect(words(5.62, 9, 14)).toMatchObject({ title: '3 spots.' });
    expect(words(5.62, 9, 14).detail).toContain('shows from f/5.6 on, 2 of 3 at f/11');
    expect(words(14).title).toBe('One spot, none of which shows at f/11.');
    expect(
      [
        [0.1, 0.1],
        [0.5, 0.5],
        [0.9, 0.5]
      ].map(([x = 0, y = 0]) => spotPlace({ x, y }))
    ).toEqual([
      // prettier-ignore
      'upper left',
      'middle',
      'right'
    ]);
  });
});
