/** Eye or nose: what the difference is worth, at three distances. */
import { mean, sum } from 'd3-array';
import { blurDiscDiameter } from '../../optics/blur';
import { formatLength, type LengthUnit } from '../../units/length';
import { shortLength } from '../../words/bench';
import { capital } from '../../words/call';
import type { SeriesMatch } from '../series/match';
import type { FrameRead } from '../series/series';
import { diagonalVerdict, type DiagonalStep } from './diagonal';
import { defineDrill, type DrillSaid } from './kind';
import { distanceFor, figureAlone, missingIn, missingText, nothingFits, stepWriter, widestOf } from './layout';

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
    kind: 'eyeNose',
    steps,
    deepMm,
    distances: froms.map((distanceMm) => {
      const own = steps.filter(({ step, frame }) => step.distanceMm === distanceMm && frame !== null);
      const others = own.flatMap(({ step, things }) => things.filter(({ index }) => index !== step.focusOn));
      const seen = mean(others.flatMap(({ discMm }) => discMm ?? []));
      const away = mean(own.flatMap(({ frame }) => (frame && depthOf(frame, 0)) ?? [])) ?? distanceMm;
      return {
        distanceMm: away,
        frames: own.length,
        expected: discAt(away) / allowedMm,
        measured: seen === undefined ? null : seen / allowedMm,
        right: own.filter(({ sharpest, step }) => sharpest === step.focusOn).length
      };
    }),
    sameFromMm: any && deepMm !== null && deepMm > 0 ? whereSame(discAt, allowedMm, any.focalLengthMm, deepMm) : null,
    missing: missingIn(match.steps)
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

/** What eye or nose is worth: "From 3.4 m on it makes no difference." */
export function eyeNoseWords(
  { distances, deepMm, sameFromMm, missing, steps }: EyeNoseVerdict,
  unit: LengthUnit
): DrillSaid {
  if (missing === steps.length) return nothingFits;
  const done = distances.filter(({ frames }) => frames > 0);
  const percent = (ratio: number) => `${Math.round(100 * ratio)}%`;
  const each = done
    .map(({ distanceMm, measured, expected }) =>
      measured === null
        ? `from ${formatLength(distanceMm, unit)} not measured`
        : `from ${formatLength(distanceMm, unit)} by ${percent(measured)} of what is allowed (${percent(expected)} by theory)`
    )
    .join(', ');
  // Where it makes no difference, neither was the sharper.
  const telling = done.filter(({ expected }) => expected > 1);
  const [frames, right] = [sum(telling, (one) => one.frames), sum(telling, (one) => one.right)];
  const apart = deepMm === null ? '' : ` They lay ${shortLength(deepMm, unit)} apart.`;
  const chosen = right < frames ? ` ${right} of ${frames} times the one you chose was the sharper.` : '';
  const worst = done.find(({ measured }) => measured !== null && measured > 1);
  return {
    title:
      sameFromMm === null
        ? 'Can’t tell eye from nose by their distance.'
        : `From ${formatLength(sameFromMm, unit)} on, eye or nose makes no difference.`,
    detail: `${capital(`focused on one, the other is blurred ${each}`)}.${apart}${chosen}`,
    next:
      missing > 0
        ? missingText(missing)
        : right < frames
          ? 'Where the wrong one was sharp: a smaller point, and see what else it covered.'
          : worst
            ? `Nearer than that the point belongs on the eye: from ${formatLength(worst.distanceMm, unit)} the nose costs it.`
            : 'At these distances either will do: try it from nearer.'
  };
}

/** An eye, and a nose so much nearer, mm (anatomy.ts has it for people; from memory); seen from so many focal lengths (chosen: near, usual, far). */
const face = { deepMm: 25, times: [16, 24, 40], asideMm: 95 } as const;

export const eyeNose = defineDrill({
  id: 'eyeNose',
  title: 'Eye or nose',
  purpose: 'Eye, then nose, at three distances: what the difference is worth.',
  minutes: 15,
  needs: [
    'a doll, a pet that sleeps, or a patient person',
    'two of the printed marks: one beside the eye, one at the tip of the nose',
    'something to rest on'
  ],
  practises: { focus: 'second' },
  figureText: (figure, unit) => `no difference from ${formatLength(figure, unit)} on`,
  frames: {
    shows: 'face',
    byDistance: true,
    fine: true,
    arrange: (kit) => {
      const distances = face.times.map((times) => distanceFor(kit, times));
      return {
        distanceMm: distances[0] ?? distanceFor(kit),
        spacingMm: face.deepMm,
        things: [
          { index: 0, lateralMm: -face.asideMm / 2, depthMm: face.deepMm },
          { index: 1, lateralMm: face.asideMm / 2, depthMm: 0 }
        ],
        steps: [...new Set(distances)].flatMap((from, at) =>
          [0, 1].map((focusOn) => stepWriter(kit)({ id: `from${at}on${focusOn}`, focusOn, distanceMm: from }))
        )
      };
    },
    tasks: ({ steps }, unit) => {
      const widest = widestOf(steps);
      const from = [...new Set(steps.flatMap((step) => step.distanceMm ?? []))].map((mm) => formatLength(mm, unit));
      return [
        {
          id: 'marks',
          text: 'The first mark beside an eye, at the same distance; the second beside the tip of the nose'
        },
        { id: 'set', text: `${widest}, single point, single AF, lens at eye level` },
        ...from.map((away, index) => ({
          id: `from${index}`,
          text: `From ${away}: focus on the eye, then on the nose`,
          step: `from${index}on0`
        }))
      ];
    },
    stepName: ({ distanceMm, focusOn }, unit) =>
      `from ${formatLength(distanceMm ?? 0, unit)}, on the ${focusOn === 0 ? 'eye' : 'nose'}`,
    judge: (match, { unit, discMm }) => {
      const verdict = eyeNoseVerdict(match, discMm);
      return {
        said: eyeNoseWords(verdict, unit),
        ...figureAlone(verdict.sameFromMm),
        learned: [],
        offsetsMm: verdict.steps.map(({ offsetMm }) => offsetMm),
        things: verdict.steps.map(({ things }) => things)
      };
    }
  }
});
