import { describe, expect, it } from 'vitest';
import { arrangedFor, drillOf, figureWords } from '.';
import type { DrillStep } from '../series/steps';
import type { DiagonalStep } from './diagonal';
import type { EdgesVerdict } from './edges';
import type { EyeNoseVerdict } from './eyeNose';
import type { FocusLadderRow } from './stopLadder';
import type { SteadyVerdict } from './steady';
import type { SwayVerdict } from './sway';
import { writeDrillsCsv } from '../../formats/drillsCsv';
import type { JudgeMode } from '../desk/judgeModes';
import type { DrillResult } from '../schema';
import { learned, type LearnedAt } from '../series/learned';
import { diagonalWords } from './diagonal';
import { edgesWords } from './edges';
import { eyeNoseWords } from './eyeNose';
import { judgeWords } from './judge';
import { ladderWords } from './stopLadder';
import { learnedWords } from './learnedWords';
import { leftWords } from '../series/match';
import { steadyWords, trackWords } from './steady';
import { swayDrillWords } from './sway';

const kit = { focalLengthMm: 50, widestFNumber: 1.8, smallestFNumber: 16, closestMm: 400, discMm: 0.03 };
const steps = arrangedFor('diagonal', kit)?.steps ?? [];
const read = (at: number, offsetMm: number | null, sharpest: number | null): DiagonalStep => ({
  step: steps[at] as DrillStep,
  frame: offsetMm === null ? null : ({} as DiagonalStep['frame']),
  offsetMm,
  sharpest,
  things: []
});
const diagonal = (of: readonly DiagonalStep[]) =>
  diagonalWords(
    {
      kind: 'diagonal',
      steps: of,
      missing: of.filter(({ frame }) => frame === null).map(({ step }) => step.focusOn),
      right: of.filter(({ sharpest, step }) => sharpest === step.focusOn).length,
      offMm: 12
    },
    'metric'
  );

describe('drills in words', () => {
  it('three on a diagonal: done, one to do, one missed', () => {
    expect(diagonal([read(0, 5, 0), read(1, -9, 1), read(2, 20, 2)]).title).toBe(
      'Each time the one you chose was the sharpest.'
    );
    const missing = diagonal([read(0, 5, 0), read(1, -9, 1), read(2, null, null)]);
    expect(missing.title).toBe('One still to do: the third.');
    expect(missing.next).toContain('Take the third again');
    const missed = diagonal([read(0, 5, 0), read(1, -70, 0), read(2, 20, 2)]);
    expect(missed.title).toBe('2 of 3 times the one you chose was the sharpest.');
    expect(missed.next).toBe('On the second it lay 70 mm in front: see what else the point covered there.');
    expect(diagonal([read(0, null, null), read(1, null, null), read(2, null, null)]).title).toBe(
      'No frame fits a step.'
    );
  });

  it('the stop ladder: what holds, against theory', () => {
    const row = (focusOn: number, holds: number | null, expected: number | null): FocusLadderRow => {
      return { focusOn, stops: [], holds, expected };
    };
    const said = ladderWords({
      kind: 'stopLadder',
      rows: [row(0, null, 16), row(1, 11.3, 8)],
      departs: 0.31,
      costsFrom: { fNumber: 16, by: 'noise' },
      missing: 0
    });
    expect(said.title).toBe('f/11 keeps all sharp, focused on the second.');
    expect(said.detail).toBe(
      'Focused on the first, none keeps all sharp (f/16 should); focused on the second, f/11 keeps all sharp (f/8 should). Your lens blurs 31% more than theory. From f/16 on noise costs what was focused on.'
    );
    expect(
      ladderWords({ kind: 'stopLadder', rows: [row(0, null, null)], departs: null, costsFrom: null, missing: 2 })
    ).toMatchObject({
      title: 'No aperture keeps all of them sharp.',
      next: '2 steps are missing: shoot them again.'
    });
  });

  it('to the edges: a lean, none, or too little', () => {
    const edges = (value: number | null, half = 5): EdgesVerdict => ({
      kind: 'edges',
      steps: [],
      straightMm: 4,
      turnOffMm: -2,
      missing: 3,
      leaned:
        value === null
          ? null
          : { lean: { value, low: value - half, high: value + half }, spread: { value: 6, low: 4, high: 10 }, times: 8 }
    });
    expect(edgesWords(edges(22), 'metric').title).toBe('You lean 22 mm forward while you turn.');
    expect(edgesWords(edges(22), 'metric').detail).toContain('17 mm to 27 mm (90% range)');
    expect(edgesWords(edges(-22), 'metric').title).toContain('back');
    expect(edgesWords(edges(2), 'metric').title).toContain('keep your distance');
    expect(edgesWords(edges(null), 'metric').next).toContain('Four leaning frames');
  });

  it('eye or nose: from where on it makes no difference, and what it costs nearer', () => {
    const from = (distanceMm: number, measured: number | null, right = 2) => ({
      distanceMm,
      measured,
      expected: measured ?? 0,
      right,
      frames: 2
    });
    const verdict = (distances: EyeNoseVerdict['distances'], missing = 0): EyeNoseVerdict => ({
      kind: 'eyeNose',
      steps: [read(0, 1, 0), read(1, 1, 1)],
      distances,
      deepMm: 26,
      sameFromMm: 2200,
      missing
    });
    const said = eyeNoseWords(verdict([from(1350, 2.5), from(3400, 0.4)]), 'metric');
    expect(said.title).toBe('From 2.2 m on, eye or nose makes no difference.');
    expect(said.detail).toBe(
      'Focused on one, the other is blurred from 1.4 m by 250% of what is allowed (250% by theory), from 3.4 m by 40% of what is allowed (40% by theory). They lay 26 mm apart.'
    );
    expect(said.next).toContain('from 1.4 m the nose costs it');
    expect(eyeNoseWords(verdict([from(1350, 2.5, 1)]), 'metric').next).toContain('a smaller point');
    expect(eyeNoseWords(verdict([from(3400, 0.4)]), 'metric').next).toContain('either will do');
    expect(eyeNoseWords(verdict([from(3400, null)], 1), 'metric').next).toContain('One step is missing');
    expect(eyeNoseWords(verdict([], 2), 'metric').title).toBe('No frame fits a step.');
  });

  it('sway: a figure, the focus beside it, and frames that cannot be told apart', () => {
    const figure = (value: number) => ({ value, low: value / 2, high: value * 2 });
    const steps = [{ step: {} as DrillStep, frame: null, offsetMm: 0 }];
    const verdict = (changes: Partial<SwayVerdict>): SwayVerdict => ({
      kind: 'sway',
      steps,
      missing: 0,
      miscounted: 0,
      swayed: {
        sway: figure(12),
        focus: figure(3),
        byWait: [{ waitS: 0, spread: figure(3), times: 5 }, { waitS: 6, spread: figure(20), times: 5 }] // prettier-ignore
      },
      ...changes
    });
    const said = swayDrillWords(verdict({}), 'metric');
    expect(said.title).toBe('You sway 12 mm in the first second.');
    expect(said.detail).toContain('6 mm to 24 mm (90% range); AF scatter 3 mm');
    expect(said.detail).toContain('at once 3 mm, after 6 s 20 mm.');
    expect(said.next).toContain('You sway more than AF scatters');
    const swayed = { sway: figure(1), focus: figure(9), byWait: [] };
    expect(swayDrillWords(verdict({ swayed }), 'metric').next).toContain('you stand well');
    expect(swayDrillWords(verdict({ miscounted: -1 }), 'metric').detail).toContain('1 frame is missing: which');
    expect(swayDrillWords(verdict({ miscounted: 2 }), 'metric').detail).toContain('2 frames are too many: which');
    expect(swayDrillWords(verdict({ swayed: null }), 'metric').next).toContain('four frames at once');
    expect(swayDrillWords(verdict({ missing: 1 }), 'metric').title).toBe('No frame fits a step.');
  });

  it('hold steady: from which time on it shows, against one over the focal length', () => {
    const steps = [{ step: {} as DrillStep, frame: null, track: null }];
    const told = (showsFromS: number): SteadyVerdict => ({
      kind: 'steady',
      steps,
      measured: 15,
      seen: 6,
      missing: 0,
      steady: {
        share: { value: 1, low: 0.5, high: 2 },
        showsFromS: { value: showsFromS, low: showsFromS / 2, high: showsFromS * 2 },
        byTime: [{ shutterS: 1 / 100, seen: 1, times: 3 }]
      }
    });
    expect(steadyWords(told(1 / 50), 100)).toEqual({
      title: 'Your camera shake shows from 1/50.',
      detail: '1/100 to 1/25 (90% range). Camera shake showed at 1/100 1 of 3.',
      next: 'You hold 1.0 stops longer than 1/100.'
    });
    expect(steadyWords(told(1 / 400), 100).next).toContain('Stay 2.0 stops shorter than 1/100');
    expect(steadyWords(told(1 / 100), 100).next).toContain('1/100 is your time');
    expect([0, 0.8, 1.5].map((angle) => trackWords({ px: 4, angle }))).toEqual(
      ['across', 'aslant', 'up and down'].map((way) => `a track of 4.0 pixels, ${way}`)
    );
    expect(trackWords({ px: 0, angle: null })).toBe('no track to be seen');
    expect(steadyWords({ ...told(1), steady: null, seen: 0 }, 100).next).toContain('Try slower speeds too');
    expect(steadyWords({ ...told(1), steady: null, measured: 3, seen: 0 }, 100).next).toContain('Six frames at least');
  });

  it('judging: the blur seen, and whether the standard suits', () => {
    const said = (ratio: number, times: number, mode: JudgeMode = 'sharper') =>
      judgeWords(
        { threshold: Math.log10(ratio), low: Math.log10(ratio / times), high: Math.log10(ratio * times), next: 0 },
        mode,
        22,
        'metric'
      );
    expect(said(0.4, 1.5).title).toBe('You see 0.40× the acceptable blur.');
    // 0.4 of 22 mm.
    expect(said(0.4, 1.5).detail).toContain('9 mm off the eye');
    expect(said(1.2, 1.5, 'side').title).toBe('You tell front from behind from 1.2× the acceptable blur.');
    expect(said(0.4, 1.5, 'side').detail).not.toContain('standard');
    expect(said(1.8, 1.5, 'kind').title).toBe('You name what is wrong from 1.8× the acceptable blur.');
    expect(said(0.4, 1.5, 'four').title).toBe('Of four you find the sharp one from 0.40× the acceptable blur.');
    expect(said(0.7, 1.5, 'stop').title).toBe('You can tell apertures 0.70 stops apart.');
    expect(said(0.4, 1.5).detail).toContain('choose a stricter one');
    expect(said(0.9, 1.5).detail).toContain('suits your eyes');
    expect(said(2, 1.5).detail).toContain('stricter than your eyes');
  });

  it('tells every step and task apart, and why a frame is left out', () => {
    for (const drill of ['diagonal', 'stopLadder', 'edges'] as const) {
      const arranged = arrangedFor(drill, kit);
      if (!arranged) throw new Error(drill);
      const names = arranged.steps.map((step) => drillOf(drill)?.frames?.stepName(step, 'metric'));
      expect(new Set(names).size).toBe(names.length);
      expect(
        drillOf(drill)
          ?.frames?.tasks(arranged, 'metric')
          .every(({ text }) => text.length > 10)
      ).toBe(true);
    }
    expect(new Set(Object.values(leftWords)).size).toBe(5);
  });

  it('writes results as a table, a row a step', () => {
    const result = (changes: Partial<DrillResult>): DrillResult => ({
      kind: 'result',
      id: 'r',
      madeAt: Date.UTC(2026, 10, 27, 9),
      simulated: false,
      drill: 'diagonal',
      bodyId: 'b',
      body: 'Body',
      lensId: 'l',
      lens: '=SUM(A1)',
      focalLengthMm: 50,
      figure: 12.345678,
      asked: null,
      stance: null,
      learned: [],
      low: null,
      high: null,
      steps: [{ step: 'focus0', file: 'A.JPG', mm: -4 }],
      ...changes
    });
    const lines = writeDrillsCsv([
      result({}),
      result({ drill: 'judge', figure: 0.3, low: 0.2, high: 0.5, steps: [], asked: 'kind' }),
      result({ steps: [], learned: [learned('sway', { value: 6, low: 4.5, high: 9 })] })
    ]).split('\r\n');
    expect(lines[1]).toBe("Three on a diagonal,2026-11-27T09:00:00,Body,'=SUM(A1),50,no,,12.3457,,,focus0,A.JPG,-4,,");
    expect(lines[2]).toBe("Judge by eye,2026-11-27T09:00:00,Body,'=SUM(A1),50,no,,0.3,0.2,0.5,,,,kind,");
    expect(lines[3]).toMatch(/,,sway 6 4\.5 9$/);
    expect(figureWords(result({}), 'metric')).toBe('12 mm off');
    expect(figureWords(result({ drill: 'edges', figure: -21 }), 'metric')).toBe('leaning 21 mm back');
    expect(figureWords(result({ figure: null }), 'metric')).toBe('can’t tell');
    const judged = (asked: JudgeMode) => figureWords(result({ drill: 'judge', figure: 0.5, asked }), 'metric');
    expect(judged('side')).toBe('front told from behind from 0.50 of what is allowed');
    expect(judged('four')).toBe('one of four found from 0.50 of what is allowed');
    expect(judged('stop')).toBe('0.50 stops told apart');
    expect(judged('sharper')).toBe('seen from 0.50 of what is allowed');
  });

  it('says what was learned of the hands, with the interval and how one stood', () => {
    const told = (what: LearnedAt['what'], value: number, stance: LearnedAt['stance'] = null) =>
      learnedWords({ what, stance, value, low: value - 8, high: value + 8 }, 'metric');
    expect(told('lean', 4)).toBe('You come 4 mm nearer while turning (4 mm back to 12 mm nearer)');
    expect(told('lean', 20)).toBe('You come 20 mm nearer while turning (12 to 28 mm nearer)');
    expect(told('leanSpread', 12)).toBe('From one turn to the next that differs by 12 mm (4 to 20 mm)');
    expect(told('sway', 12, 'kneeling')).toBe('You sway 12 mm in a second, kneeling (4 to 20 mm)');
    expect(told('shake', 9, 'monopod')).toContain('9.00 of the usual disc, on a monopod');
  });

  it('has for each task a step there is, so that what it must come out as can be shown', () => {
    for (const closestMm of [400, 900])
      for (const drill of ['stopLadder', 'diagonal', 'eyeNose', 'edges', 'sway', 'steady'] as const) {
        const arranged = arrangedFor(drill, { ...kit, closestMm });
        const shown = arranged
          ? (drillOf(drill)?.frames?.tasks(arranged, 'metric') ?? []).flatMap(({ step }) => step ?? [])
          : [];
        expect(shown.length, drill).toBeGreaterThan(0);
        for (const id of shown)
          expect(
            arranged?.steps.map((step) => step.id),
            drill
          ).toContain(id);
      }
  });

  it('says how many sharp ones were taken for sharp, and advises who throws them away', () => {
    const belief = { threshold: 0, low: -0.1, high: 0.1, next: 0 };
    const said = (right: number) => judgeWords(belief, 'kind', 22, 'metric', { shown: 6, right });
    expect(said(5).detail).toContain('Of 6 sharp faces you accepted 5 for sharp.');
    expect(said(5).next).toContain('it moved');
    expect(said(1).next).toContain('before you delete one');
    expect(judgeWords(belief, 'kind', 22, 'metric').detail).not.toContain('sharp faces');
  });
});
