/** Two weeks of practice: a drill a day, most of what the record says is weakest. */
import { greatest, sum } from 'd3-array';
import type { Recorded } from '../record/schema';
import { drills } from './kinds';
import { drillIds, type DrillId } from './kinds/ids';
import { weaknesses, type Weakness } from './kinds/kind';
import type { DrillResult } from './schema';

/** What practises each, the most to the point first. */
export const practisedBy = (weakness: Weakness): readonly DrillId[] =>
  (['first', 'second'] as const).flatMap((rank) =>
    drills.flatMap(({ id, practises }) => (practises[weakness] === rank ? [id] : []))
  );

export interface Weak {
  readonly weakness: Weakness;
  /** Soft frames it cost, of all frames that tell. */
  readonly lost: number;
  readonly of: number;
}

export interface PracticeDay {
  /** From 1. */
  readonly day: number;
  readonly drill: DrillId;
  /** Why it is there; null where nothing weak asks for it. */
  readonly because: Weakness | null;
}

export interface Fortnight {
  /** The weakest first; none without soft frames. */
  readonly weak: readonly Weak[];
  readonly frames: number;
  readonly days: readonly PracticeDay[];
}

/** Waited longer than this between focusing and the shutter, what scatters is the photographer's own sway, s (chosen). */
const longWaitS = 1;
/** Somebody moved across faster than this, mm/s (chosen: in 1/250 s at a tenth of life size it is two pixels). */
const movesMmPerS = 150;

/** What a soft frame was lost to: one thing, the plainest first. */
export function weaknessOf(frame: Recorded): Weakness {
  if (frame.landedElsewhere) return 'elsewhere';
  const outside = frame.error && likeliest(frame.error);
  const missed = outside !== null && (outside < frame.frontUm || outside > frame.behindUm);
  if (missed && frame.recomposed) return 'turning';
  if (frame.reason === 'moved' || frame.people.some(({ movement }) => (movement?.mmPerS ?? 0) > movesMmPerS))
    return 'moving';
  if (missed && frame.secondsToShutter >= longWaitS && frame.stance !== 'tripod') return 'waiting';
  // The plane was where it should be, and still somebody was soft: they stood deeper than it was sharp.
  return missed ? 'focus' : 'depth';
}

const likeliest = (parts: NonNullable<Recorded['error']>): number => greatest(parts, ({ share }) => share)?.q ?? NaN;

const days = 14;
/** So much a drill counts for by itself, for never having been done, and for each tenth of frames lost to what it practises (chosen). */
const counts = { own: 1, never: 2, tenth: 2 } as const;
/** The share of the second drill for a weakness against the first (chosen). */
const secondShare = 0.5;

/** The frames of the record, whether those came out sharp is known; and what came of drills. */
export function fortnightOf(frames: readonly Recorded[], results: readonly DrillResult[]): Fortnight {
  const told = frames.filter(({ sharp }) => sharp !== 'unknown');
  const lostTo = told.filter(({ sharp }) => sharp === 'some').map(weaknessOf);
  const weak = weaknesses
    .map((weakness): Weak => ({ weakness, lost: lostTo.filter((one) => one === weakness).length, of: told.length }))
    .filter(({ lost }) => lost > 0)
    .sort((a, b) => b.lost - a.lost);
  const done = new Set(results.filter(({ simulated }) => !simulated).map(({ drill }) => drill));
  const asked = drillIds.map((drill): Asked => {
    const by = weak.flatMap(({ weakness, lost, of }) => {
      const at = practisedBy(weakness).indexOf(drill);
      return at < 0 ? [] : [{ weakness, worth: (counts.tenth * 10 * lost * secondShare ** at) / of }];
    });
    return {
      drill,
      because: greatest(by, ({ worth }) => worth)?.weakness ?? null,
      worth: counts.own + (done.has(drill) ? 0 : counts.never) + sum(by, ({ worth }) => worth)
    };
  });
  return { weak, frames: told.length, days: spread(asked) };
}

interface Asked {
  readonly drill: DrillId;
  readonly because: Weakness | null;
  readonly worth: number;
}

/**
 * Days in proportion to what each is worth, as evenly as can be (highest quotient, as seats are dealt: Webster and Sainte-Laguë), never the same on
 * two days running; the last day is the first one's drill again, to be held against it.
 */
function spread(asked: readonly Asked[]): PracticeDay[] {
  const given = new Map<DrillId, number>();
  const dealt: Asked[] = [];
  for (let day = 1; day <= days; day++) {
    const [first] = dealt;
    const before = dealt[dealt.length - 1];
    const quotient = (one: Asked) => one.worth / (2 * (given.get(one.drill) ?? 0) + 1);
    const free = asked.filter(({ drill }) => drill !== before?.drill && !(day === days - 1 && drill === first?.drill));
    const next = day === days && first ? first : greatest(free, quotient);
    if (!next) break;
    dealt.push(next);
    given.set(next.drill, (given.get(next.drill) ?? 0) + 1);
  }
  return dealt.map(({ drill, because }, index) => ({ day: index + 1, drill, because }));
}
