/** To the edges: how far the plane moves off by turning after focusing, and how far one leans. */
import { mean } from 'd3-array';
import { recomposeShift } from '../../call/motion';
import { imageDistance } from '../../optics/thinLens';
import { exactFNumber } from '../../optics/stops';
import { formatLength, type LengthUnit } from '../../units/length';
import { shortLength } from '../../words/bench';
import { leanOf, type Leaned } from '../series/lean';
import { learned } from '../series/learned';
import type { SeriesMatch } from '../series/match';
import { offsetFrom, type FrameRead } from '../series/series';
import type { DrillStep } from '../series/steps';
import { defineDrill, type DrillSaid } from './kind';
import {
  apart,
  distanceFor,
  figureOf,
  inLine,
  marked,
  missingIn,
  nothingFits,
  ordinal,
  stepWriter,
  straight,
  widestOf
} from './layout';

export interface EdgesStep {
  readonly step: DrillStep;
  readonly frame: FrameRead | null;
  readonly offsetMm: number | null;
  /** By turning alone, mm behind. */
  readonly turnMm: number | null;
}

export interface EdgesVerdict {
  readonly kind: 'edges';
  readonly steps: readonly EdgesStep[];
  /** Where the plane lay without any turn: what the focus itself is off, mm. */
  readonly straightMm: number | null;
  /** What turning moved beyond what it should, mean, mm; null without frames. */
  readonly turnOffMm: number | null;
  /** What leaning adds to it; null with too few frames. */
  readonly leaned: Leaned | null;
  readonly missing: number;
}

/** The one in the middle is what one turns away from. */
const aimedAt = 1;

/** @param pivotMm from the pupil back to what one turns about */
export function edgesVerdict({ steps }: SeriesMatch, pivotMm: number): EdgesVerdict {
  const read = steps.map(({ step, frame }): EdgesStep => {
    const mark = frame?.marks.find(({ index }) => index === step.focusOn);
    if (!frame || !mark) return { step, frame, offsetMm: null, turnMm: null };
    const v = imageDistance(frame.focalLengthMm, mark.depthMm);
    const across = (px: number, of: number) => ((px - of / 2) * frame.pixelMm * mark.depthMm) / v;
    const target = { x: across(mark.x, frame.width), y: across(mark.y, frame.height), z: mark.depthMm };
    return {
      step,
      frame,
      offsetMm: offsetFrom(frame, step.focusOn),
      turnMm: step.turning === null ? 0 : recomposeShift(target, pivotMm, 'flat')
    };
  });
  const beyond = (turning: DrillStep['turning']) =>
    read.flatMap(({ step, offsetMm, turnMm }) =>
      step.focusOn === aimedAt && step.turning === turning && offsetMm !== null && turnMm !== null
        ? [offsetMm - turnMm]
        : []
    );
  const straightMm = mean(beyond(null)) ?? null;
  const base = straightMm ?? 0;
  return {
    kind: 'edges',
    steps: read,
    straightMm,
    turnOffMm: mean(beyond('turn').map((mm) => mm - base)) ?? null,
    leaned: leanOf(beyond('lean').map((mm) => mm - base)),
    missing: missingIn(read)
  };
}

export function edgesWords(
  { straightMm, turnOffMm, leaned, missing, steps }: EdgesVerdict,
  unit: LengthUnit
): DrillSaid {
  if (missing === steps.length) return nothingFits;
  const of = (mm: number) => `${shortLength(Math.abs(mm), unit)} ${mm < 0 ? 'in front' : 'behind'}`;
  const turn = turnOffMm === null ? '' : ` Turning alone lay ${of(turnOffMm)} of what it should.`;
  const straight = straightMm === null ? '' : `Straight, focus was ${of(straightMm)}.`;
  if (!leaned)
    return {
      title: 'Can’t tell yet how far you lean.',
      detail: straight + turn,
      next: 'Four leaning frames at least are needed.'
    };
  const { lean, spread } = leaned;
  const clear = lean.low > 0 || lean.high < 0;
  const way = lean.value > 0 ? 'forward' : 'back';
  return {
    title: clear
      ? `You lean ${shortLength(Math.abs(lean.value), unit)} ${way} while you turn.`
      : 'You keep your distance while you turn, as far as this can tell.',
    detail: `${shortLength(Math.min(Math.abs(lean.low), Math.abs(lean.high)), unit)} to ${shortLength(Math.max(Math.abs(lean.low), Math.abs(lean.high)), unit)} (90% range), scatter ${shortLength(spread.value, unit)}. ${straight}${turn}`,
    next: clear
      ? 'Turn about your wrists, elbows at the body, and take the leaning frames again.'
      : 'Nothing to mend: try it nearer.'
  };
}

/** How far apart they stand, in depths of field wide open, and at least; close enough beside each other to lie in the picture together at its edges, mm (chosen). */
const spacing = { zones: 1.2, least: 30, aside: 88 } as const;

export const edges = defineDrill({
  id: 'edges',
  title: 'To the edges',
  purpose: 'How far focus shifts as you recompose, and how much you lean.',
  minutes: 20,
  needs: ['three small objects', 'three of the printed marks', 'no tripod: it is your body that is measured'],
  practises: { turning: 'first', waiting: 'second' },
  figureText: (figure, unit) => `leaning ${shortLength(Math.abs(figure), unit)} ${figure < 0 ? 'back' : 'forward'}`,
  frames: {
    shows: 'picture',
    use: {
      button: 'Use my lean',
      done: () => 'Your lean counts wherever a call has you recompose with the whole body.'
    },
    arrange: (kit) => {
      const spacingMm = apart(kit, { ...spacing, fNumber: exactFNumber(kit.widestFNumber), step: 10 });
      const turned = (turning: 'turn' | 'lean') =>
        [false, true].flatMap((upright) =>
          (['left', 'right', 'top', 'bottom'] as const).map((place) =>
            stepWriter(kit)({
              id: `${turning}${upright ? 'Upright' : ''}${place}`,
              focusOn: 1,
              place,
              upright,
              turning
            })
          )
        );
      return {
        distanceMm: distanceFor(kit),
        spacingMm,
        things: inLine(3, spacing.aside, spacingMm),
        steps: [...straight(kit), ...turned('turn'), ...turned('lean')]
      };
    },
    tasks: ({ distanceMm, spacingMm, steps }, unit) => {
      const [apart, away, widest] = [shortLength(spacingMm, unit), formatLength(distanceMm, unit), widestOf(steps)];
      return [
        { id: 'stand', text: `Stand three objects side by side, each ${apart} further back than the last; ${marked}` },
        { id: 'away', text: `${away} from the first, hand-held, ${widest}, centre point, single AF` },
        {
          id: 'straight',
          text: 'Straight: one frame each with focus on the second, the first, the third',
          step: 'straight1'
        },
        {
          id: 'turn',
          text: 'Focus on the second in the centre, then turn until it is at the left, right, top, bottom; refocus for each',
          step: 'turnleft'
        },
        { id: 'upright', text: 'The same in portrait orientation', step: 'turnUprightleft' },
        { id: 'lean', text: 'All eight again, recomposing as you usually do', step: 'leanleft' }
      ];
    },
    stepName: ({ turning, focusOn, upright, place }) =>
      turning === null
        ? `straight, focus on the ${ordinal(focusOn)}`
        : `${turning === 'turn' ? 'turned' : 'leaning'}, ${upright ? 'upright, ' : ''}${place}`,
    judge: (match, { unit, habits }) => {
      const verdict = edgesVerdict(match, habits.pivotMm.wrists);
      const { leaned } = verdict;
      return {
        said: edgesWords(verdict, unit),
        ...figureOf(leaned?.lean),
        learned: leaned ? [learned('lean', leaned.lean), learned('leanSpread', leaned.spread)] : [],
        offsetsMm: verdict.steps.map(({ offsetMm }) => offsetMm),
        turnsMm: verdict.steps.map(({ turnMm }) => turnMm)
      };
    }
  }
});
