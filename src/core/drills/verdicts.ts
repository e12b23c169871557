/** What a series of frames says, drill by drill. */
import { maxIndex, mean, median, min } from 'd3-array';
import { recomposeShift } from '../call/motion';
import { blurDiscDiameter } from '../optics/blur';
import { traditionalDiscMm } from '../optics/criterion';
import { motionDisc } from '../optics/sharpness';
import { imageDistance } from '../optics/thinLens';
import type { DrillStep } from './definitions';
import { leanOf, type Leaned } from './lean';
import { fineOf, noiseOf } from './fiducials';
import type { SeriesMatch, Matched } from './match';
import { offsetFrom, type FrameRead } from './series';
import { steadyOf, type HandheldFrame, type Steady } from './steady';
import { estimateSway, type Swayed } from './sway';
import { leastTrackPx, tracksOf, type Track } from './tracks';

/** A thing in a frame: how blurred it came out, and how it should have. */
export interface ThingRead {
  readonly index: number;
  /** mm on the sensor; null where it was not measured. */
  readonly discMm: number | null;
  readonly expectedMm: number;
}

const thingsIn = (frame: FrameRead, step: DrillStep): ThingRead[] => {
  const aimed = frame.marks.find(({ index }) => index === step.focusOn);
  return [...frame.marks]
    .sort((a, b) => a.index - b.index)
    .map(({ index, depthMm }) => {
      const seen = frame.discs.find((disc) => disc.index === index);
      return {
        index,
        discMm: seen ? seen.discPx * frame.pixelMm : null,
        expectedMm: aimed ? blurDiscDiameter(frame.focalLengthMm, frame.fNumber, aimed.depthMm, depthMm) : NaN
      };
    });
};

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
    ...{ step, frame, sharpest: frame?.nearest ?? null },
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
    missing: steps.filter(({ frame }) => frame === null).length
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

export interface EyeNoseVerdict {
  readonly kind: 'eyeNose';
  readonly steps: readonly DiagonalStep[];
  /** From the nearest: what is blurred how much where the other is in focus, over what is allowed; null where it was not measured. */
  readonly distances: readonly {
    readonly distanceMm: number;
    readonly measured: number | null;
    readonly expected: number;
    /** Of the frames there, in which what was focused on was the sharper. */
    readonly right: number;
    readonly frames: number;
  }[];
  /** From the nose to the eye as it was measured, mm; null without any. */
  readonly deepMm: number | null;
  /** From here on neither looks soft while the other is in focus, mm. */
  readonly sameFromMm: number | null;
  readonly missing: number;
}

/** @param allowedMm the disc that still looks sharp */
export function eyeNoseVerdict(match: SeriesMatch, allowedMm: number): EyeNoseVerdict {
  const { steps } = diagonalVerdict(match);
  const depthOf = (frame: FrameRead, wanted: number) => frame.marks.find(({ index }) => index === wanted)?.depthMm;
  const deepMm =
    mean(
      steps.flatMap(({ frame }) => {
        const [eye, nose] = frame ? [depthOf(frame, 0), depthOf(frame, 1)] : [];
        return eye !== undefined && nose !== undefined ? [eye - nose] : [];
      })
    ) ?? null;
  const froms = [...new Set(steps.flatMap(({ step }) => step.distanceMm ?? []))];
  const [any] = steps.flatMap(({ frame }) => frame ?? []);
  const discAt = (z: number) =>
    any && deepMm !== null && deepMm > 0 ? blurDiscDiameter(any.focalLengthMm, any.fNumber, z, z - deepMm) : NaN;
  return {
    ...{ kind: 'eyeNose', steps, deepMm },
    distances: froms.map((distanceMm) => {
      const own = steps.filter(({ step, frame }) => step.distanceMm === distanceMm && frame !== null);
      const others = own.flatMap(({ step, things }) => things.filter(({ index }) => index !== step.focusOn));
      const seen = mean(others.flatMap(({ discMm }) => discMm ?? []));
      const away = mean(own.flatMap(({ frame }) => (frame && depthOf(frame, 0)) ?? [])) ?? distanceMm;
      return {
        ...{ distanceMm: away, frames: own.length, expected: discAt(away) / allowedMm },
        measured: seen === undefined ? null : seen / allowedMm,
        right: own.filter(({ sharpest, step }) => sharpest === step.focusOn).length
      };
    }),
    sameFromMm: any && deepMm !== null && deepMm > 0 ? whereSame(discAt, allowedMm, any.focalLengthMm, deepMm) : null,
    missing: match.steps.filter(({ frame }) => frame === null).length
  };
}

/** Where a disc that shrinks with the distance is as large as is allowed, by halving. */
function whereSame(discAt: (z: number) => number, allowedMm: number, f: number, deepMm: number): number {
  let [near, far] = [2 * f + deepMm, 1e6];
  for (let round = 0; round < 60; round++) {
    const middle = Math.sqrt(near * far);
    if (discAt(middle) > allowedMm) near = middle;
    else far = middle;
  }
  return far;
}

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
    ...{ kind: 'sway', steps: read, swayed: estimateSway(waited, usual, growsForS) },
    missing: read.filter(({ frame }) => frame === null).length,
    miscounted: waited.length === 0 ? 0 : spare - lacking
  };
}

export interface SteadyVerdict {
  readonly kind: 'steady';
  readonly steps: readonly {
    readonly step: DrillStep;
    readonly frame: FrameRead | null;
    readonly track: (Track & { readonly mm: number }) | null;
  }[];
  /** Null with too few frames, or too few that show anything. */
  readonly steady: Steady | null;
  /** Frames that could be measured, and those of them that show a track. */
  readonly told: number;
  readonly seen: number;
  readonly missing: number;
}

/** @param usual the share one expects; @param allowedMm the disc that still looks sharp */
export function steadyVerdict(
  { steps }: SeriesMatch,
  focalLengthMm: number,
  usual: number,
  allowedMm: number
): SteadyVerdict {
  const frames = steps.flatMap(({ frame }) => frame ?? []);
  const tracks = tracksOf(frames.map(({ marked }) => marked));
  const read = steps.map(({ step, frame }) => {
    const track = frame && (tracks[frames.indexOf(frame)] ?? null);
    return { step, frame, track: frame && track && { ...track, mm: track.px * frame.pixelMm } };
  });
  const held = read.flatMap(({ frame, track }): HandheldFrame[] =>
    frame && track && frame.shutterS !== null
      ? [
          {
            shutterS: frame.shutterS,
            discMm: track.px > 0 ? motionDisc(track.mm) : null,
            leastMm: motionDisc(leastTrackPx * frame.pixelMm)
          }
        ]
      : []
  );
  return {
    ...{ kind: 'steady', steps: read, told: held.length },
    steady: steadyOf(held, usual, traditionalDiscMm * focalLengthMm, allowedMm),
    seen: held.filter(({ discMm }) => discMm !== null).length,
    missing: read.filter(({ frame }) => frame === null).length
  };
}

/** @param pivotMm from the pupil back to what one turns about */
export function edgesVerdict({ steps }: SeriesMatch, pivotMm: number): EdgesVerdict {
  const read = steps.map(({ step, frame }): EdgesStep => {
    const mark = frame?.marks.find(({ index }) => index === step.focusOn);
    if (!frame || !mark) return { step, frame, offsetMm: null, turnMm: null };
    const v = imageDistance(frame.focalLengthMm, mark.depthMm);
    const across = (px: number, of: number) => ((px - of / 2) * frame.pixelMm * mark.depthMm) / v;
    const target = { x: across(mark.x, frame.width), y: across(mark.y, frame.height), z: mark.depthMm };
    return {
      ...{ step, frame, offsetMm: offsetFrom(frame, step.focusOn) },
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
    missing: read.filter(({ frame }) => frame === null).length
  };
}
