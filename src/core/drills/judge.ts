/** Pairs to judge by eye: how much out of focus one of them is, and where its plane lies then. */
/** What is asked: which of two is sharper; or whether the plane lies before the face or behind it. */
export const judgeModes = ['sharper', 'side'] as const;
export type JudgeMode = (typeof judgeModes)[number];

/** Of the blur over what is allowed, as logarithms: what one expects to see, and how sure of that (from memory). */
export const judgeAsked: Readonly<
  Record<JudgeMode, { readonly guess: number; readonly expected: number; readonly sd: number }>
> = {
  sharper: { guess: 0.5, expected: Math.log10(0.5), sd: 0.35 },
  side: { guess: 0.5, expected: Math.log10(1.5), sd: 0.4 }
};
/** No more blur than this is shown, over what is allowed. */
const mostRatio = 8;
const leastRatio = 0.02;
/** So many answers, and no less before anything is said (chosen: the interval is then a factor of two or so). */
export const judgeTrials = { all: 24, least: 12 } as const;

/** The level asked about, kept to what can be shown. */
export const shownLevel = (level: number): number =>
  Math.min(Math.log10(mostRatio), Math.max(Math.log10(leastRatio), level));

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
