/** Which setup a frame was taken of: by the time, the lens and how many faces there are. */
import { group, sort } from 'd3-array';
import { clockKey } from './clocks';
import type { Frame } from './schema';

export interface SetupWindow {
  readonly setupId: string;
  /** When it was planned or ticked, as if it were UTC, ms since 1970; null where nobody said. */
  readonly fromMs: number | null;
  readonly toMs: number | null;
  readonly focalLengthMm: number;
  readonly faces: number;
}

export interface CaptureFacts {
  /** By the body's clock, corrected, ms; null where the file does not say. */
  readonly clockMs: number | null;
  readonly focalLengthMm: number | null;
  readonly faces: number;
}

/** So long before and after it was planned still is that setup, ms (chosen; costs below are in half hours). */
const slackMs = 20 * 60_000;
/** Beyond it, three of these cost as much as another lens, ms. */
const unit = 30 * 60_000;
const unlikelyLens = 3;
const mostCost = 6;

/** @returns the likeliest setup, or null where none is likely */
export function matchSetup(frame: CaptureFacts, windows: readonly SetupWindow[]): string | null {
  let best: { id: string; cost: number } | null = null;
  for (const window of windows) {
    const cost = timeCost(frame.clockMs, window) + lensCost(frame, window) + facesCost(frame, window);
    if (!best || cost < best.cost) best = { id: window.setupId, cost };
  }
  return best && best.cost < mostCost ? best.id : null;
}

function timeCost(clockMs: number | null, { fromMs, toMs }: SetupWindow): number {
  if (clockMs === null || fromMs === null || toMs === null) return 1;
  const off = clockMs < fromMs - slackMs ? fromMs - slackMs - clockMs : Math.max(0, clockMs - toMs - slackMs);
  const within = clockMs >= fromMs && clockMs <= toMs ? 0 : 0.2;
  return within + off / unit;
}

const lensCost = ({ focalLengthMm: f }: CaptureFacts, window: SetupWindow): number =>
  f === null ? 0.5 : Math.min(unlikelyLens, 8 * Math.abs(Math.log(f / window.focalLengthMm)));

const facesCost = ({ faces }: CaptureFacts, window: SetupWindow): number =>
  Math.min(2, (2 * Math.abs(faces - window.faces)) / Math.max(1, window.faces));

/** Frames nearer in time than this are one burst, ms (common practice, no source). */
const burstGapMs = 1500;

/**
 * How many times the camera was pointed: runs of frames of one body with little time between, in order. A frame without a
 * time is one of its own.
 */
export function bursts<T extends Pick<Frame, 'clockMs' | 'body' | 'serial'>>(frames: readonly T[]): T[][] {
  const runs: T[][] = [];
  for (const own of group(frames, clockKey).values()) {
    let before: number | null = null;
    for (const frame of sort(own, ({ clockMs }) => clockMs ?? Infinity)) {
      const clock = frame.clockMs;
      const run = runs[runs.length - 1];
      if (run && before !== null && clock !== null && clock - before <= burstGapMs) run.push(frame);
      else runs.push([frame]);
      before = clock;
    }
  }
  return runs;
}

/** The frame of the same burst before this one; null where it is the first, or nobody knows when it was taken. */
export function beforeInBurst<T extends Pick<Frame, 'id' | 'clockMs' | 'body' | 'serial'>>(
  frame: T,
  frames: readonly T[]
): T | null {
  const { clockMs } = frame;
  if (clockMs === null) return null;
  let last: T | null = null;
  for (const one of frames) {
    if (one.id === frame.id || one.clockMs === null || clockKey(one) !== clockKey(frame)) continue;
    const earlier = one.clockMs < clockMs || (one.clockMs === clockMs && frames.indexOf(one) < frames.indexOf(frame));
    if (earlier && clockMs - one.clockMs <= burstGapMs && one.clockMs >= (last?.clockMs ?? -Infinity)) last = one;
  }
  return last;
}
