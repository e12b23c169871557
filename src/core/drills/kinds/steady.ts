/** Hold steady: from which shutter time on the hands begin to show. */
import { traditionalDiscMm } from '../../optics/criterion';
import { motionDisc } from '../../optics/sharpness';
import { exactFNumber } from '../../optics/stops';
import { formatLength } from '../../units/length';
import { formatShutter } from '../../words/light';
import { learned } from '../series/learned';
import type { SeriesMatch } from '../series/match';
import type { FrameRead } from '../series/series';
import { steadyOf, type HandheldFrame, type Steady } from '../series/steady';
import type { DrillStep } from '../series/steps';
import { leastTrackPx, tracksOf, type Track } from '../series/tracks';
import { usualShare } from '../series/usual';
import { defineDrill, type DrillSaid } from './kind';
import { distanceFor, figureOf, inLine, missingIn, nothingFits, stepWriter, widestOf } from './layout';
import { inUseWhere } from './stanceText';

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
  readonly measured: number;
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
    kind: 'steady',
    steps: read,
    measured: held.length,
    steady: steadyOf(held, usual, traditionalDiscMm * focalLengthMm, allowedMm),
    seen: held.filter(({ discMm }) => discMm !== null).length,
    missing: missingIn(read)
  };
}

/** How a track runs, by its angle from across: "across", "up and down", "aslant". */
const runs = (angle: number): string => {
  const steep = Math.abs(Math.sin(angle));
  return steep < Math.sin(Math.PI / 6) ? 'across' : steep > Math.cos(Math.PI / 6) ? 'up and down' : 'aslant';
};

/** "a track of 2.6 pixels, across". */
export function trackWords({ px, angle }: Track): string {
  if (px === 0) return 'no track to be seen';
  return `a track of ${px.toFixed(1)} pixels${angle === null ? '' : `, ${runs(angle)}`}`;
}

/** How long one can hold: "Your hands show from 1/60 s on." */
export function steadyWords(
  { steady, measured, seen, missing, steps }: SteadyVerdict,
  focalLengthMm: number
): DrillSaid {
  if (missing === steps.length) return nothingFits;
  if (!steady)
    return {
      title: 'Can’t tell yet how steady you are.',
      detail: `${measured} frames could be measured, ${seen} of them show a track.`,
      next:
        seen < 3 && measured >= 6
          ? 'Try slower speeds too: your hands don’t show at these.'
          : 'Six frames at least are needed, three of them at long times.'
    };
  const { showsFromS, byTime } = steady;
  const shorter = Math.log2(1 / focalLengthMm / showsFromS.value);
  const stops = `${Math.abs(shorter).toFixed(1)} stops`;
  const each = byTime
    .map(({ shutterS, seen: shown, times }) => `${formatShutter(shutterS)} ${shown} of ${times}`)
    .join(', ');
  return {
    title: `Your camera shake shows from ${formatShutter(showsFromS.value)}.`,
    detail: `${formatShutter(showsFromS.low)} to ${formatShutter(showsFromS.high)} (90% range). Camera shake showed at ${each}.`,
    next:
      shorter > 0.3
        ? `Stay ${stops} shorter than 1/${Math.round(focalLengthMm)}, or brace yourself and try again.`
        : shorter < -0.3
          ? `You hold ${stops} longer than 1/${Math.round(focalLengthMm)}.`
          : `1/${Math.round(focalLengthMm)} is your time: no longer.`
  };
}

/** Frames of each shutter time; times about 1/focal length, and with a stabiliser twice as long again until this, s; the stop, where depth does not matter (chosen). */
const held = { times: 3, aboutF: [0.25, 0.5, 1, 2, 4], longestS: 1, fNumber: 5.6, asideMm: 95 } as const;

export const steady = defineDrill({
  id: 'steady',
  title: 'Hold steady',
  purpose: 'Slower and slower shutter speeds: find where camera shake starts.',
  minutes: 15,
  needs: ['three of the printed marks on a wall', 'steady light', 'your usual stance'],
  practises: { moving: 'second' },
  figureText: (figure) => `held to ${formatShutter(figure)}`,
  frames: {
    shows: 'objects',
    ownStance: true,
    fine: true,
    use: { button: 'Use it', done: inUseWhere },
    arrange: (kit) => {
      const { focalLengthMm: f } = kit;
      const longer: number[] = [];
      const last = held.aboutF[held.aboutF.length - 1] ?? 4;
      if (kit.stabilised)
        for (let s = (2 * last) / f; s < held.longestS * 1.2; s *= 2) longer.push(Math.min(s, held.longestS));
      const fNumber = exactFNumber(Math.min(kit.smallestFNumber, Math.max(kit.widestFNumber, held.fNumber)));
      return {
        distanceMm: distanceFor(kit),
        spacingMm: 0,
        things: inLine(3, held.asideMm, 0),
        steps: [...held.aboutF.map((times) => times / f), ...longer].flatMap((shutterS, time) =>
          Array.from({ length: held.times }, (_, at) =>
            stepWriter(kit)({ id: `time${time}no${at}`, focusOn: 1, shutterS, fNumber })
          )
        )
      };
    },
    tasks: ({ distanceMm, steps }, unit) => {
      const [away, widest] = [formatLength(distanceMm, unit), widestOf(steps)];
      const times = [...new Set(steps.flatMap(({ shutterS }) => shutterS ?? []))].map(formatShutter);
      return [
        { id: 'hang', text: `Hang three marks side by side on a wall, ${away} away` },
        { id: 'set', text: `Manual exposure at ${widest}, Auto ISO; focus on the middle mark` },
        { id: 'times', text: `Three frames each at ${times.join(', ')}`, step: 'time0no0' }
      ];
    },
    stepName: ({ shutterS }) => (shutterS === null ? '' : formatShutter(shutterS)),
    judge: (match, { habits, focalLengthMm, stance, stabiliserStops, discMm }) => {
      const verdict = steadyVerdict(match, focalLengthMm, usualShare(habits, stance, stabiliserStops), discMm);
      return {
        said: steadyWords(verdict, focalLengthMm),
        ...figureOf(verdict.steady?.showsFromS),
        learned: verdict.steady ? [learned('shake', verdict.steady.share, 2 ** stabiliserStops)] : [],
        notes: verdict.steps.map(({ track }) => (track ? trackWords(track) : ''))
      };
    }
  }
});
