/** Stop ladder: the same row of objects at every stop. */
import { maxIndex, mean, median, min } from 'd3-array';
import { exactFNumber, lensStops } from '../../optics/stops';
import { formatLength } from '../../units/length';
import { shortLength } from '../../words/bench';
import { fineOf, noiseOf } from '../series/fiducials';
import type { Matched, SeriesMatch } from '../series/match';
import type { FrameRead } from '../series/series';
import { defineDrill, type DrillSaid, type ThingRead } from './kind';
import {
  apart,
  distanceFor,
  figureAlone,
  inLine,
  marked,
  marksAndTripod,
  missingIn,
  missingText,
  ordinal,
  stepWriter,
  stopName,
  thingsIn,
  widestOf
} from './layout';

export interface FocusLadderRow {
  readonly focusOn: number;
  readonly stops: readonly {
    readonly fNumber: number;
    readonly frame: FrameRead | null;
    readonly things: readonly ThingRead[];
  }[];
  /** The first stop at which every thing looks sharp, measured and expected; null where none does. */
  readonly holds: number | null;
  readonly expected: number | null;
}

export interface LadderVerdict {
  readonly kind: 'stopLadder';
  readonly rows: readonly FocusLadderRow[];
  /** Measured discs over those of theory, less one; null with too few large enough to tell. */
  readonly departs: number | null;
  /** From this stop on what was focused on is itself less sharp: diffraction, or noise; null where it never is. */
  readonly costsFrom: { readonly fNumber: number; readonly by: 'diffraction' | 'noise' } | null;
  readonly missing: number;
}

/** Only discs so many pixels wide tell how far a lens departs from theory (chosen). */
const tellingPx = 2;
const leastTelling = 4;
/** Fine detail of what was focused on falls by this share of its best, where a smaller stop costs (chosen). */
const costShare = 0.8;

/** @param allowedMm the disc that still looks sharp */
export function ladderVerdict({ steps }: SeriesMatch, allowedMm: number): LadderVerdict {
  const focused = [...new Set(steps.map(({ step }) => step.focusOn))];
  const rows = focused.map((focusOn): FocusLadderRow => {
    const own = steps.filter(({ step }) => step.focusOn === focusOn);
    const stops = own.map(({ step, frame }) => {
      return { fNumber: step.fNumber, frame, things: frame ? thingsIn(frame, step) : [] };
    });
    const first = (of: (thing: ThingRead) => number | null) =>
      stops.find(({ things }) => things.length > 1 && things.every((thing) => (of(thing) ?? Infinity) <= allowedMm))
        ?.fNumber ?? null;
    return { focusOn, stops, holds: first(({ discMm }) => discMm), expected: first(({ expectedMm }) => expectedMm) };
  });
  const ratios = rows.flatMap(({ stops }) =>
    stops.flatMap(({ frame, things }) =>
      things.flatMap(({ discMm, expectedMm }) =>
        frame && discMm !== null && expectedMm > tellingPx * frame.pixelMm ? [discMm / expectedMm - 1] : []
      )
    )
  );
  return {
    kind: 'stopLadder',
    rows,
    departs: ratios.length < leastTelling ? null : (median(ratios) ?? null),
    costsFrom: costsFrom(steps),
    missing: missingIn(steps)
  };
}

/** Noise costs where it is so much of what is fine, and so many times what it is at the best stop (chosen). */
const noisy = { share: 0.05, times: 4 } as const;

/** How fine what was focused on is at each stop, in all series together. */
function costsFrom(steps: readonly Matched[]): LadderVerdict['costsFrom'] {
  const stops = [...new Set(steps.map(({ step }) => step.fNumber))].sort((a, b) => a - b);
  const seen = stops.flatMap((fNumber) => {
    const marks = steps.flatMap(({ step, frame }) => {
      const mark = frame?.marked.marks.find(({ index }) => index === step.focusOn);
      return step.fNumber === fNumber && mark ? [mark] : [];
    });
    const [fine, noise] = [mean(marks, (mark) => Math.sqrt(fineOf(mark))), mean(marks, noiseOf)];
    return fine === undefined || noise === undefined ? [] : [{ fNumber, fine, noise }];
  });
  const best = maxIndex(seen, ({ fine }) => fine);
  const quiet = min(seen, ({ noise }) => noise) ?? 0;
  const isSoft = (fine: number) => fine < costShare * (seen[best]?.fine ?? 0);
  const after = seen.find(
    ({ fine, noise }, index) => (index > best && isSoft(fine)) || (noise > noisy.share && noise > noisy.times * quiet)
  );
  return after ? { fNumber: after.fNumber, by: isSoft(after.fine) ? 'diffraction' : 'noise' } : null;
}

export function ladderWords({ rows, departs, costsFrom, missing }: LadderVerdict): DrillSaid {
  const held = rows.map(({ focusOn, holds, expected }) => {
    const said = holds === null ? 'none keeps all sharp' : `${stopName(holds)} keeps all sharp`;
    const theory = expected === null ? 'none should' : `${stopName(expected)} should`;
    return `focused on the ${ordinal(focusOn)}, ${said} (${theory})`;
  });
  const [best] = [...rows].filter(({ holds }) => holds !== null).sort((a, b) => (a.holds ?? 99) - (b.holds ?? 99));
  const title = best?.holds
    ? `${stopName(best.holds)} keeps all sharp, focused on the ${ordinal(best.focusOn)}.`
    : 'No aperture keeps all of them sharp.';
  const departing =
    departs === null
      ? ''
      : Math.abs(departs) < 0.1
        ? ' Your lens keeps to theory within a tenth.'
        : ` Your lens blurs ${Math.round(Math.abs(departs) * 100)}% ${departs > 0 ? 'more' : 'less'} than theory.`;
  const cost =
    costsFrom === null ? '' : ` From ${stopName(costsFrom.fNumber)} on ${costsFrom.by} costs what was focused on.`;
  const next =
    missing > 0
      ? missingText(missing)
      : best && best.focusOn !== 0
        ? 'Worth remembering: focus a third of the way in and everyone is sharp at a wider aperture.'
        : 'Try it again at twice the distance.';
  return { title, detail: `${held.join('; ')}.${departing}${cost}`.replace(/^f/, 'F'), next };
}

/** A smaller stop than this is not asked for: it tells nothing of depth that diffraction does not hide (chosen). */
const smallest = 16;
/** How far apart they stand, in depths of field at f/4, and at least; beside one another: a mark is 80 wide, mm (chosen). */
const spacing = { zones: 0.9, least: 40, aside: 95 } as const;

export const stopLadder = defineDrill({
  id: 'stopLadder',
  title: 'Aperture ladder',
  purpose: 'This lens’s real depth of field at every aperture, front and back.',
  minutes: 25,
  needs: ['four small objects', 'four of the printed marks', marksAndTripod],
  practises: { depth: 'first' },
  figureText: (figure) => `${Math.round(Math.abs(figure) * 100)}% from theory`,
  frames: {
    shows: 'objects',
    eachStop: true,
    arrange: (kit) => {
      const spacingMm = apart(kit, { ...spacing, fNumber: exactFNumber(Math.max(4, kit.widestFNumber)), step: 10 });
      const stops = lensStops(kit.widestFNumber, Math.min(smallest, kit.smallestFNumber), 'full');
      return {
        distanceMm: distanceFor(kit),
        spacingMm,
        things: inLine(4, spacing.aside, spacingMm),
        steps: [0, 1].flatMap((focusOn) =>
          stops.map(({ fNumber }, at) =>
            stepWriter(kit)({ id: `${focusOn === 0 ? 'first' : 'middle'}${at}`, focusOn, fNumber })
          )
        )
      };
    },
    tasks: ({ distanceMm, spacingMm, steps }, unit) => {
      const [apart, away, widest] = [shortLength(spacingMm, unit), formatLength(distanceMm, unit), widestOf(steps)];
      return [
        {
          id: 'stand',
          text: `Stand four objects in a diagonal line, each ${apart} further back than the last; ${marked}`
        },
        { id: 'rest', text: `Tripod or table, lens at their height, ${away} from the first` },
        {
          id: 'first',
          text: `Focus on the first, then don’t refocus. One frame at each full stop from ${widest}`,
          step: 'first0'
        },
        { id: 'middle', text: 'Focus on the second, don’t refocus, and the whole series again', step: 'middle0' }
      ];
    },
    stepName: ({ focusOn, fNumber }) => `${ordinal(focusOn)}, ${stopName(fNumber)}`,
    judge: (match, { discMm }) => {
      const verdict = ladderVerdict(match, discMm);
      return {
        said: ladderWords(verdict),
        ...figureAlone(verdict.departs),
        learned: [],
        things: verdict.rows.flatMap(({ stops }) => stops.map(({ things }) => things))
      };
    }
  }
});
