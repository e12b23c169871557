/** What becomes of a background or foreground at one stop. */
import { blurDiscDiameter, blurInObjectSpace } from '../optics/blur';
import { totalDisc } from '../optics/sharpness';
import type { Wish } from '../setup/schema';
import type { BackgroundAtStop } from './plan';

/** Blur over detail at which something is hinted: soft, but its shape can be told (optics model, from memory). */
export const hintRange = { least: 1 / 6, most: 1 / 2 } as const;

/** A goal missed by less than a third of a stop is met: nobody sees the difference (common practice, no source). */
const nearlyMetStops = 0.33;

interface BackgroundInput {
  readonly f: number;
  /** Pupil magnification. */
  readonly P: number;
  readonly N: number;
  readonly s: number;
  /** Depth of the background, mm from the lens. */
  readonly depth: number;
  readonly detailMm: number;
  readonly wish: Wish;
  /** Lens, diffraction and pixels, mm. */
  readonly otherDisc: number;
  readonly circleOfConfusion: number;
  readonly frameHeightMm: number;
}

export function backgroundAtStop(input: BackgroundInput): BackgroundAtStop {
  const { f, P, N, s, depth, circleOfConfusion } = input;
  if (depth <= f) {
    return { lostDetailMm: 0, shareOfFrameHeight: 0, ratio: 0, met: true, shortfallStops: 0 };
  }
  const lostDetailMm = blurInObjectSpace(f, N, s, depth);
  const disc = blurDiscDiameter(f, N, s, depth, P);
  const ratio = totalDisc(disc, input.otherDisc) / circleOfConfusion;
  const shortfallStops = shortfall(input.wish, lostDetailMm / input.detailMm);
  return {
    lostDetailMm,
    shareOfFrameHeight: disc / input.frameHeightMm,
    ratio,
    met: shortfallStops < nearlyMetStops,
    shortfallStops
  };
}

/** Stops by which a goal is missed. Blur halves for every two stops. What is to be recognised keeps what is twice its blur. */
function shortfall(wish: Wish, blurOverDetail: number): number {
  const stops = (factor: number) => Math.min(20, Math.max(0, 2 * Math.log2(factor)));
  switch (wish) {
    case 'hide':
      return stops(1 / blurOverDetail);
    case 'hint':
      return Math.max(stops(hintRange.least / blurOverDetail), stops(blurOverDetail / hintRange.most));
    case 'keep':
      return stops(blurOverDetail / hintRange.most);
    // As soft as it gets collides with nothing.
    case 'soft':
    case 'free':
      return 0;
  }
}
