import { describe, expect, it } from 'vitest';
import { arrangedFor, type Step } from '../drills/definitions';
import type { DiagonalStep, EdgesVerdict, LadderRow } from '../drills/verdicts';
import { writeDrillsCsv } from '../formats/drillsCsv';
import type { DrillResult } from '../drills/schema';
import {
  diagonalWords,
  edgesWords,
  figureWords,
  judgeWords,
  ladderWords,
  leftWords,
  stepName,
  tasksOf
} from './drills';

const kit = { focalLengthMm: 50, widestFNumber: 1.8, smallestFNumber: 16, closestMm: 400, discMm: 0.03 };
const steps = arrangedFor('diagonal', kit)?.steps ?? [];
const read = (at: number, offsetMm: number | null, sharpest: number | null): DiagonalStep => ({
  step: steps[at] as Step,
  frame: offsetMm === null ? null : ({} as DiagonalStep['frame']),
  ...{ offsetMm, sharpest, things: [] }
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
    const row = (focusOn: number, holds: number | null, expected: number | null): LadderRow => {
      return { focusOn, stops: [], holds, expected };
    };
    const said = ladderWords({
      ...{ kind: 'stopLadder', rows: [row(0, null, 16), row(1, 11.3, 8)], departs: 0.31, costsFrom: 16, missing: 0 }
    });
    expect(said.title).toBe('f/11 holds all, focused on the second.');
    expect(said.detail).toBe(
      'Focused on the first, no stop holds all (f/16 should); focused on the second, f/11 holds all (f/8 should). Your lens blurs 31 % more than theory. From f/16 on diffraction or noise costs what was focused on.'
    );
    expect(
      ladderWords({ kind: 'stopLadder', rows: [row(0, null, null)], departs: null, costsFrom: null, missing: 2 })
    ).toMatchObject({
      title: 'No stop holds all of them.',
      next: '2 steps are missing: take them again.'
    });
  });

  it('to the edges: a lean, none, or too little', () => {
    const edges = (value: number | null, half = 5): EdgesVerdict => ({
      ...{ kind: 'edges', steps: [], straightMm: 4, turnOffMm: -2, missing: 3 },
      leaned:
        value === null
          ? null
          : { lean: { value, low: value - half, high: value + half }, spread: { value: 6, low: 4, high: 10 }, times: 8 }
    });
    expect(edgesWords(edges(22), 'metric').title).toBe('You lean 22 mm forward while you turn.');
    expect(edgesWords(edges(22), 'metric').detail).toContain('17 mm to 27 mm nine times in ten');
    expect(edgesWords(edges(-22), 'metric').title).toContain('back');
    expect(edgesWords(edges(2), 'metric').title).toContain('keep your distance');
    expect(edgesWords(edges(null), 'metric').next).toContain('Four leaning frames');
  });

  it('judging: the blur seen, and whether the standard suits', () => {
    const said = (ratio: number, times: number, mode: 'sharper' | 'side' = 'sharper') =>
      judgeWords(
        { threshold: Math.log10(ratio), low: Math.log10(ratio / times), high: Math.log10(ratio * times), next: 0 },
        mode,
        22,
        'metric'
      );
    expect(said(0.4, 1.5).title).toBe('You see 0.40 of the blur that is allowed.');
    // 0.4 of 22 mm.
    expect(said(0.4, 1.5).detail).toContain('9 mm off the eye');
    expect(said(1.2, 1.5, 'side').title).toBe('You tell front from behind from 1.2 of the blur that is allowed.');
    expect(said(0.4, 1.5, 'side').detail).not.toContain('standard');
    expect(said(0.4, 1.5).detail).toContain('choose a stricter one');
    expect(said(0.9, 1.5).detail).toContain('suits your eyes');
    expect(said(2, 1.5).detail).toContain('stricter than your eyes');
  });

  it('tells every step and task apart, and why a frame is left out', () => {
    for (const drill of ['diagonal', 'stopLadder', 'edges'] as const) {
      const arranged = arrangedFor(drill, kit);
      if (!arranged) throw new Error(drill);
      const names = arranged.steps.map((step) => stepName(step, drill));
      expect(new Set(names).size).toBe(names.length);
      expect(tasksOf(drill, arranged, 'metric').every(({ text }) => text.length > 10)).toBe(true);
    }
    expect(new Set(Object.values(leftWords)).size).toBe(4);
  });

  it('writes results as a table, a row a step', () => {
    const result = (changes: Partial<DrillResult>): DrillResult => ({
      ...{ kind: 'result', id: 'r', madeAt: Date.UTC(2026, 10, 27, 9), simulated: false, drill: 'diagonal' },
      ...{
        bodyId: 'b',
        body: 'Body',
        lensId: 'l',
        lens: '=SUM(A1)',
        focalLengthMm: 50,
        figure: 12.345678,
        asked: null
      },
      ...{ low: null, high: null, steps: [{ step: 'focus0', file: 'A.JPG', mm: -4 }] },
      ...changes
    });
    const lines = writeDrillsCsv([
      result({}),
      result({ drill: 'judge', figure: 0.3, low: 0.2, high: 0.5, steps: [] })
    ]).split('\r\n');
    expect(lines[1]).toBe("Three on a diagonal,2026-11-27T09:00:00,Body,'=SUM(A1),50,no,12.3457,,,focus0,A.JPG,-4");
    expect(lines[2]).toBe("Judge by eye,2026-11-27T09:00:00,Body,'=SUM(A1),50,no,0.3,0.2,0.5,,,");
    expect(figureWords(result({}), 'metric')).toBe('12 mm off');
    expect(figureWords(result({ drill: 'edges', figure: -21 }), 'metric')).toBe('leaning 21 mm back');
    expect(figureWords(result({ figure: null }), 'metric')).toBe('not told');
    const judged = (asked: 'side' | 'sharper') => figureWords(result({ drill: 'judge', figure: 0.5, asked }), 'metric');
    expect(judged('side')).toBe('front told from behind from 0.50 of what is allowed');
    expect(judged('sharper')).toBe('seen from 0.50 of what is allowed');
  });
});
