/** How alike a day's pictures are: perspective, background blur and framing. */
import type { Plan } from '../call/plan';
import { adultHead } from '../people/anatomy';

export interface VisualSignature {
  readonly setupId: string;
  /** Perspective: lens to subject line, mm. */
  readonly distanceMm: number;
  /** Framing: an adult's head as a share of the picture's height. */
  readonly headShare: number;
  /** Blur disc of the furthest background as a share of the picture's height; null where there is none. */
  readonly blurShare: number | null;
}

export function lookOf(setupId: string, plan: Plan): VisualSignature {
  const furthest = plan.backgrounds.reduce<number>(
    (best, item, index) => (item.depthMm > (plan.backgrounds[best]?.depthMm ?? -Infinity) ? index : best),
    0
  );
  const headMm = adultHead.crownY - adultHead.chinY;
  return {
    setupId,
    distanceMm: plan.distanceMm,
    headShare: headMm / plan.framedHeightMm,
    blurShare: plan.stops[plan.selected]?.backgrounds[furthest]?.shareOfFrameHeight ?? null
  };
}

/** Two pictures look alike within these ratios (my judgement, no source). */
const alikeWithin = { distance: 1.3, head: 1.3, blur: 1.5 } as const;

const near = (a: number, b: number, ratio: number) => Math.max(a, b) <= ratio * Math.min(a, b);

export function alike(a: VisualSignature, b: VisualSignature): boolean {
  if (a.blurShare === null || b.blurShare === null) return false;
  return (
    near(a.distanceMm, b.distanceMm, alikeWithin.distance) &&
    near(a.headShare, b.headShare, alikeWithin.head) &&
    near(a.blurShare, b.blurShare, alikeWithin.blur)
  );
}

/** As many as this are worth a word. */
export const noticedFrom = 3;

/** The largest sets that are alike with one of them: each of three or more, the largest first, nobody in two. */
export function alikeSets(looks: readonly VisualSignature[]): (readonly VisualSignature[])[] {
  const sets: (readonly VisualSignature[])[] = [];
  let left = looks;
  for (;;) {
    let best: readonly VisualSignature[] = [];
    for (const middle of left) {
      const like = left.filter((look) => look === middle || alike(look, middle));
      if (like.length > best.length) best = like;
    }
    if (best.length < noticedFrom) return sets;
    sets.push(best);
    const taken = best;
    left = left.filter((look) => !taken.includes(look));
  }
}
