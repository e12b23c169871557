/** Three on a diagonal: one focus point, moved from the first object to the third. */
import { mean } from 'd3-array';
import { exactFNumber } from '../../optics/stops';
import type { LengthUnit } from '../../units/length';
import { formatLength } from '../../units/length';
import { shortLength } from '../../words/bench';
import type { SeriesMatch } from '../series/match';
import { offsetFrom, type FrameRead } from '../series/series';
import type { DrillStep } from '../series/steps';
import { defineDrill, type DrillSaid, type ThingRead } from './kind';
import {
  apart,
  distanceFor,
  figureAlone,
  inLine,
  marked,
  marksAndTripod,
  nothingFits,
  ordinal,
  stepWriter,
  thingsIn,
  widestOf
} from './layout';

export interface DiagonalStep {
  readonly step: DrillStep;
  readonly frame: FrameRead | null;
  readonly offsetMm: number | null;
  /** The one that was sharpest. */
  readonly sharpest: number | null;
  readonly things: readonly ThingRead[];
}

export interface DiagonalVerdict {
  readonly kind: 'diagonal';
  readonly steps: readonly DiagonalStep[];
  /** Steps that are still to do. */
  readonly missing: readonly number[];
  /** Of those done, in which the chosen one was the sharpest. */
  readonly right: number;
  /** Mean distance of the plane from what was chosen, mm; null without any. */
  readonly offMm: number | null;
}

export function diagonalVerdict({ steps }: SeriesMatch): DiagonalVerdict {
  const read = steps.map(({ step, frame }): DiagonalStep => ({
    step,
    frame,
    sharpest: frame?.nearest ?? null,
    offsetMm: frame && offsetFrom(frame, step.focusOn),
    things: frame ? thingsIn(frame, step) : []
  }));
  const offs = read.flatMap(({ offsetMm }) => (offsetMm === null ? [] : [Math.abs(offsetMm)]));
  return {
    kind: 'diagonal',
    steps: read,
    missing: read.filter(({ frame }) => frame === null).map(({ step }) => step.focusOn),
    right: read.filter(({ frame, sharpest, step }) => frame !== null && sharpest === step.focusOn).length,
    offMm: mean(offs) ?? null
  };
}

const list = (indices: readonly number[]): string => indices.map((index) => `the ${ordinal(index)}`).join(' and ');

export function diagonalWords({ steps, missing, right, offMm }: DiagonalVerdict, unit: LengthUnit): DrillSaid {
  const done = steps.length - missing.length;
  if (done === 0) return { ...nothingFits, next: 'Shoot each again, with the marks in the frame and readable.' };
  const twice = steps.filter(({ frame }) => frame !== null).map(({ step }) => step.focusOn);
  const title =
    missing.length > 0
      ? `${missing.length === 1 ? 'One' : 'Two'} still to do: ${list(missing)}.`
      : right === steps.length
        ? 'Each time the one you chose was the sharpest.'
        : `${right} of ${steps.length} times the one you chose was the sharpest.`;
  const worst = [...steps]
    .filter(({ offsetMm }) => offsetMm !== null)
    .sort((a, b) => Math.abs(b.offsetMm ?? 0) - Math.abs(a.offsetMm ?? 0))[0];
  const off = offMm === null ? '' : `On average focus was ${shortLength(offMm, unit)} off.`;
  const next =
    missing.length > 0
      ? `Take ${list(missing)} again: move the point first, then half-press.`
      : right < steps.length && worst
        ? `On the ${ordinal(worst.step.focusOn)} it lay ${shortLength(Math.abs(worst.offsetMm ?? 0), unit)} ${(worst.offsetMm ?? 0) < 0 ? 'in front' : 'behind'}: see what else the point covered there.`
        : twice.length === steps.length
          ? 'Next time nearer, or with the point in a corner of the frame.'
          : '';
  return { title, detail: off, next };
}

/** How far apart they stand, in depths of field wide open, and at least; beside one another: a mark is 80 wide, mm (chosen). */
const spacing = { zones: 3, least: 100, aside: 120 } as const;

export const diagonal = defineDrill({
  id: 'diagonal',
  title: 'Three on a diagonal',
  purpose: 'Move only the AF point: one plane is ever sharp.',
  minutes: 15,
  needs: ['three small objects', 'three of the printed marks', marksAndTripod],
  practises: { focus: 'first', elsewhere: 'second' },
  figureText: (figure, unit) => `${shortLength(figure, unit)} off`,
  frames: {
    shows: 'objects',
    arrange: (kit) => {
      const spacingMm = apart(kit, { ...spacing, fNumber: exactFNumber(kit.widestFNumber), step: 50 });
      return {
        distanceMm: distanceFor(kit),
        spacingMm,
        things: inLine(3, spacing.aside, spacingMm),
        steps: [0, 1, 2].map((index) => stepWriter(kit)({ id: `focus${index}`, focusOn: index }))
      };
    },
    tasks: ({ distanceMm, spacingMm, steps }, unit) => {
      const [apart, away, widest] = [shortLength(spacingMm, unit), formatLength(distanceMm, unit), widestOf(steps)];
      return [
        {
          id: 'stand',
          text: `Stand three objects in a diagonal line, each ${apart} further back than the last, ${marked}`
        },
        { id: 'crouch', text: `Lens at their height, ${away} from the first` },
        { id: 'stop', text: `Aperture first: ${widest}. Then the shutter, ISO last` },
        { id: 'first', text: 'AF point on the first. Half-press, then shoot', step: 'focus0' },
        { id: 'second', text: 'AF point on the second. Again', step: 'focus1' },
        { id: 'third', text: 'AF point on the third. Again', step: 'focus2' },
        { id: 'spare', text: 'One spare of each, in case' }
      ];
    },
    stepName: ({ focusOn }) => `focus on the ${ordinal(focusOn)}`,
    judge: (match, { unit }) => {
      const verdict = diagonalVerdict(match);
      return {
        said: diagonalWords(verdict, unit),
        ...figureAlone(verdict.offMm),
        learned: [],
        offsetsMm: verdict.steps.map(({ offsetMm }) => offsetMm),
        things: verdict.steps.map(({ things }) => things),
        together: verdict.missing.length === 0
      };
    }
  }
});
