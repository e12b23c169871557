/** The name of every choice, once: for the interface, for sentences, exports and paper. Of focusing: focusChoices.ts, which the first page does not need. */
import type { Keep } from './sameFraming';
import type { ApertureStyle, Wish } from './schema';

/** What a background should do. */
export const goalWords: Readonly<Record<Wish, string>> = {
  soft: 'as soft as possible',
  hide: 'blur away',
  hint: 'just hinted',
  keep: 'recognisable',
  free: 'no preference'
};

export const styleWords: Readonly<Record<ApertureStyle, string>> = {
  openAsFacesAllow: 'widest that keeps faces sharp',
  lensBest: 'the lens’s sharpest aperture',
  deepAndSafe: 'deep and safe'
};

/** What another lens keeps, in words. */
export const keepWords: Readonly<Record<Keep, string>> = { framing: 'same framing', spot: 'same spot' };
export const keepChoices: readonly { readonly value: Keep; readonly name: string }[] = [
  { value: 'framing', name: keepWords.framing },
  { value: 'spot', name: keepWords.spot }
];
