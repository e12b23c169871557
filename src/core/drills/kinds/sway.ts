/** Sway: focus, then release at once, and later and later. */
import { exactFNumber } from '../../optics/stops';
import { formatLength, type LengthUnit } from '../../units/length';
import { shortLength } from '../../words/bench';
import { learned } from '../series/learned';
import type { SeriesMatch } from '../series/match';
import { offsetFrom, type FrameRead } from '../series/series';
import type { DrillStep } from '../series/steps';
import { estimateSway, type Swayed } from '../series/sway';
import { usualFocusMm } from '../series/usual';
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
import { inUseWhere } from './stanceText';

export interface SwayVerdict {
  readonly kind: 'sway';
  readonly steps: readonly {
    readonly step: DrillStep;
    readonly frame: FrameRead | null;
    readonly offsetMm: number | null;
  }[];
  /** Null with too few frames. */
  readonly swayed: Swayed | null;
  readonly missing: number;
  /** How many frames lie too many or too few for the waits: which those are cannot be told from the files. */
  readonly miscounted: number;
}

/** @param usual what one expects, mm */
export function swayVerdict(
  { steps }: SeriesMatch,
  usual: { readonly swayMm: number; readonly focusMm: number },
  growsForS: number
): SwayVerdict {
  const read = steps.map(({ step, frame }) => ({ step, frame, offsetMm: frame && offsetFrom(frame, step.focusOn) }));
  const waited = read.flatMap(({ step: { waitS }, offsetMm }) =>
    waitS === null || offsetMm === null ? [] : [{ waitS, offMm: offsetMm }]
  );
  const spare = steps.reduce((sum, one) => sum + (one.step.waitS === null ? 0 : one.spare.length), 0);
  const lacking = steps.filter(({ step, frame }) => step.waitS !== null && frame === null).length;
  return {
    kind: 'sway',
    steps: read,
    swayed: estimateSway(waited, usual, growsForS),
    missing: missingIn(read),
    miscounted: waited.length === 0 ? 0 : spare - lacking
  };
}

/** How far one sways: "You sway 6 mm in the first second." */
export function swayDrillWords({ swayed, missing, miscounted, steps }: SwayVerdict, unit: LengthUnit): DrillSaid {
  if (missing === steps.length) return nothingFits;
  const count =
    miscounted === 0
      ? ''
      : ` ${Math.abs(miscounted)} ${Math.abs(miscounted) === 1 ? 'frame is' : 'frames are'} ${miscounted > 0 ? 'too many' : 'missing'}: which, the files cannot tell; put them to their steps by hand.`;
  if (!swayed)
    return {
      title: 'Can’t tell yet how far you sway.',
      detail: count.trim(),
      next: 'At least four frames at once, and four after a wait.'
    };
  const { sway, focus, byWait } = swayed;
  const length = (mm: number) => shortLength(mm, unit);
  const each = byWait
    .map(({ waitS, spread }) => `${waitS === 0 ? 'at once' : `after ${waitS} s`} ${length(spread.value)}`)
    .join(', ');
  const least = sway.low > focus.value;
  return {
    title: `You sway ${length(sway.value)} in the first second.`,
    detail: `${length(sway.low)} to ${length(sway.high)} (90% range); AF scatter ${length(focus.value)}. Planes scattered by ${each}.${count}`,
    next: least
      ? 'You sway more than AF scatters: release as soon as it locks, or brace yourself, and try again.'
      : sway.high < focus.value
        ? 'You sway less than AF scatters: you stand well.'
        : 'Your sway and the focus are of a size: release as it is found. Another stance another day.'
  };
}

/** How far apart they stand, in depths of field wide open, and at least; beside one another: a mark is 80 wide, mm (chosen). */
const spacing = { zones: 1.2, least: 30, aside: 88 } as const;
/** Waits, s, and frames of each (chosen: the interval is a factor of two or so). */
const waits = { seconds: [0, 1, 3, 6], times: 5 } as const;

export const sway = defineDrill({
  id: 'sway',
  title: 'Sway',
  purpose: 'How far you sway between focusing and the shutter.',
  minutes: 15,
  needs: ['three small objects', 'three of the printed marks', 'your usual stance, and nothing to lean on'],
  practises: { waiting: 'first' },
  figureText: (figure, unit) => `swaying ${shortLength(figure, unit)} a second`,
  frames: {
    shows: 'objects',
    ownStance: true,
    use: { button: 'Use it', done: inUseWhere },
    arrange: (kit) => {
      const spacingMm = apart(kit, { ...spacing, fNumber: exactFNumber(kit.widestFNumber), step: 10 });
      const waited = waits.seconds.flatMap((waitS) =>
        Array.from({ length: waits.times }, (_, at) =>
          stepWriter(kit)({ id: `wait${waitS}no${at}`, focusOn: 1, waitS })
        )
      );
      return {
        distanceMm: distanceFor(kit),
        spacingMm,
        things: inLine(3, spacing.aside, spacingMm),
        steps: [...straight(kit), ...waited]
      };
    },
    tasks: ({ distanceMm, spacingMm, steps }, unit) => {
      const [apart, away, widest] = [shortLength(spacingMm, unit), formatLength(distanceMm, unit), widestOf(steps)];
      return [
        { id: 'stand', text: `Stand three objects side by side, each ${apart} further back than the last; ${marked}` },
        { id: 'away', text: `${away} from the first, ${widest}, centre point, single AF; stand as you do today` },
        {
          id: 'straight',
          text: 'One frame each with focus on the second, the first, the third',
          step: 'straight1'
        },
        { id: 'once', text: 'On the second, five times: focus and shoot straight away', step: 'wait0no0' },
        { id: 'one', text: 'Five times: focus, count one second, shoot' },
        { id: 'three', text: 'Five times, waiting three seconds' },
        { id: 'six', text: 'Five times, waiting six. Another stance another day' }
      ];
    },
    stepName: ({ waitS, focusOn }) => {
      if (waitS === null) return `straight, focus on the ${ordinal(focusOn)}`;
      return waitS === 0 ? 'at once' : `after ${waitS} s`;
    },
    judge: (match, { unit, habits, body, focalLengthMm, stance, arranged }) => {
      const awayMm = arranged.distanceMm + arranged.spacingMm;
      const usual = {
        swayMm: habits.holdMm[stance],
        focusMm: usualFocusMm(habits, body, focalLengthMm, awayMm)
      };
      const verdict = swayVerdict(match, usual, habits.swayGrowsForS);
      return {
        said: swayDrillWords(verdict, unit),
        ...figureOf(verdict.swayed?.sway),
        learned: verdict.swayed ? [learned('sway', verdict.swayed.sway)] : [],
        offsetsMm: verdict.steps.map(({ offsetMm }) => offsetMm)
      };
    }
  }
});
