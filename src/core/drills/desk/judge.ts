/** Pairs to judge by eye: how much out of focus one of them is, and where its plane lies then. */
import type { JudgeMode } from './judgeModes';

/** Of the blur over what is allowed (of stops, where stops are asked), as logarithms: what one expects to see, and how sure of that (from memory). */
export const judgeAsked: Readonly<
  Record<JudgeMode, { readonly guess: number; readonly expected: number; readonly sd: number }>
> = {
  sharper: { guess: 0.5, expected: Math.log10(0.5), sd: 0.35 },
  side: { guess: 0.5, expected: Math.log10(1.5), sd: 0.4 },
  kind: { guess: 0.25, expected: Math.log10(2), sd: 0.4 },
  four: { guess: 0.25, expected: Math.log10(0.6), sd: 0.35 },
  stop: { guess: 0.5, expected: Math.log10(0.8), sd: 0.35 }
};
/** No more blur than this is shown, over what is allowed; no more stops apart. */
const shown = { ratio: { least: 0.02, most: 8 }, stop: { least: 0.1, most: 5 } } as const;
/** So many answers, and no less before anything is said (chosen: the interval is then a factor of two or so). */
export const judgeTrials = { all: 24, least: 12 } as const;

/** The level asked about, kept to what can be shown. */
export function shownLevel(level: number, mode: JudgeMode = 'sharper'): number {
  const { least, most } = shown[mode === 'stop' ? 'stop' : 'ratio'];
  return Math.min(Math.log10(most), Math.max(Math.log10(least), level));
}

/** How many pictures are shown at once. */
export const judgePictures: Readonly<Record<JudgeMode, number>> = { sharper: 2, side: 1, kind: 1, four: 4, stop: 2 };

/** What a face may be where its kind is asked, in the order of the answers. */
export const judgeKinds = ['sharp', 'front', 'behind', 'moved'] as const;
export type JudgeKind = (typeof judgeKinds)[number];

/** Sharp ones among them tell nothing of a level: so many were shown, so many of them taken for sharp. */
export interface SharpTaken {
  readonly shown: number;
  readonly right: number;
}

interface Eye {
  readonly focalLengthMm: number;
  readonly fNumber: number;
  /** From the pupil, mm; pupils alike. */
  readonly depthMm: number;
}

/**
 * Where the plane lies that blurs an eye by a disc, mm: the blur disc of optics/blur.ts solved for the focus. Behind the eye there is none once
 * the disc is as large as that of infinity makes it: Infinity.
 */
export function planeFor(
  { focalLengthMm: f, fNumber: N, depthMm: z }: Eye,
  discMm: number,
  side: 'front' | 'behind'
): number {
  const c = discMm * N;
  if (side === 'front') return (z * (f * f + c * f)) / (f * f + c * z);
  return f * f <= c * z ? Infinity : (z * (f * f - c * f)) / (f * f - c * z);
}

/** What a disc is in distance, before the eye, mm. */
export const offsetFor = (eye: Eye, discMm: number): number => eye.depthMm - planeFor(eye, discMm, 'front');
