/** What drills say of a photographer's own hands: kept with each result, shown by the record, and put into the habits when asked. */
import { z } from 'zod';
import type { Habits } from '../../habits/habits';
import type { Estimate } from '../../record/learn';
import type { Camera } from '../../setup/schema';

export const learnedKinds = ['lean', 'leanSpread', 'sway', 'shake'] as const;

const value = z.number().min(-1e6).max(1e6);
export const learnedSchema = z.strictObject({
  what: z
    .enum(learnedKinds)
    .describe(
      'lean, leanSpread: while turning, mm; sway: after a second, mm; shake: over the usual disc at 1/focal length, without a stabiliser'
    ),
  value,
  low: value.describe('With high: nine in ten'),
  high: value
});
export type LearnedFromDrill = z.infer<typeof learnedSchema>;

/** An estimate as it is kept. @param times how many times as large as it was measured */
export const learned = (
  what: LearnedFromDrill['what'],
  { value, low, high }: Estimate,
  times = 1
): LearnedFromDrill => ({
  what,
  value: value * times,
  low: low * times,
  high: high * times
});

type Stance = Camera['stance'];
export interface LearnedAt extends LearnedFromDrill {
  /** How one stood; null where that plays no part. */
  readonly stance: Stance | null;
  readonly madeAt: number;
  /** How often it was measured. */
  readonly times: number;
}

interface Told {
  readonly madeAt: number;
  readonly stance: Stance | null;
  readonly learned: readonly LearnedFromDrill[];
}

/** The latest of each, by how one stood. */
export function latestLearned(results: readonly Told[]): LearnedAt[] {
  const latest = new Map<string, LearnedAt>();
  for (const { madeAt, stance, learned: told } of [...results].sort((a, b) => a.madeAt - b.madeAt))
    for (const one of told) {
      const key = `${one.what} ${stance ?? ''}`;
      latest.set(key, { ...one, stance, madeAt, times: (latest.get(key)?.times ?? 0) + 1 });
    }
  return [...latest.values()].sort(
    (a, b) => learnedKinds.indexOf(a.what) - learnedKinds.indexOf(b.what) || b.madeAt - a.madeAt
  );
}

/** The habits take no larger share, no larger sway and no longer lean, mm. */
const most = { share: 5, swayMm: 1000, leanMm: 500 } as const;

/** The habits with what was measured: sway to a tenth of a millimetre, shake to a hundredth, the lean to a millimetre. */
export function withLearned(
  habits: Habits,
  { what, value: measured }: LearnedFromDrill,
  stance: Stance | null
): Habits {
  const at = stance ?? 'standing';
  switch (what) {
    case 'lean':
      return { ...habits, leanMm: Math.max(-most.leanMm, Math.min(most.leanMm, Math.round(measured))) };
    case 'leanSpread':
      return { ...habits, leanSpreadMm: Math.min(most.swayMm, Math.round(measured)) };
    case 'sway':
      return { ...habits, holdMm: { ...habits.holdMm, [at]: Math.min(most.swayMm, Number(measured.toFixed(1))) } };
    case 'shake':
      return {
        ...habits,
        shakeShare: { ...habits.shakeShare, [at]: Math.min(most.share, Number(measured.toFixed(2))) }
      };
  }
}

/** Whether the habits have it already. */
export const isInUse = (habits: Habits, one: LearnedFromDrill, stance: Stance | null): boolean =>
  JSON.stringify(withLearned(habits, one, stance)) === JSON.stringify(habits);
