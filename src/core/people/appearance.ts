/** How somebody looks: in the rendered picture, and to the camera that looks for contrast and for eyes. All invented. */
export const outfits = ['suit', 'dress', 'shirt', 'coat', 'uniform'] as const;
export const hairstyles = ['short', 'long', 'bun', 'curls', 'bald'] as const;
export const hairColours = ['black', 'brown', 'red', 'fair', 'grey', 'white'] as const;
export const outfitColours = ['ivory', 'black', 'grey', 'navy', 'blue', 'green', 'red', 'sand'] as const;
export const headwears = ['none', 'hat', 'veil'] as const;
export const seats = ['chair', 'wheelchair'] as const;

/** Skin tones, from the lightest to the darkest. */
export const skinTones = 6;

export interface Appearance {
  readonly outfit: (typeof outfits)[number];
  readonly outfitColour: (typeof outfitColours)[number];
  readonly hair: (typeof hairstyles)[number];
  readonly hairColour: (typeof hairColours)[number];
  /** 1 to `skinTones`. */
  readonly skin: number;
  readonly glasses: boolean;
  /** A brim over the brow, or a veil before the face. */
  readonly headwear: (typeof headwears)[number];
  /** What a seated person sits on. */
  readonly seat: (typeof seats)[number];
}

/** A number from 0 to 2³² − 1 that is always the same for a text (FNV-1a, Fowler, Noll and Vo). */
export function textHash(text: string): number {
  let hash = 0x811c9dc5;
  for (const letter of text) hash = Math.imul(hash ^ (letter.codePointAt(0) ?? 0), 0x01000193) >>> 0;
  // The low bits alone are poorly mixed for short texts.
  hash ^= hash >>> 15;
  return Math.imul(hash, 0x2c1b3c6d) >>> 0;
}

/** A look for somebody of whom nothing is known: varied from person to person, always the same for one. */
export function appearanceFor(id: string): Appearance {
  const hash = textHash(id);
  const pick = <T>(list: readonly T[], shift: number): T => list[(hash >>> shift) % list.length] as T;
  return {
    outfit: pick(['suit', 'dress', 'shirt', 'coat', 'dress'] as const, 3),
    outfitColour: pick(outfitColours, 24),
    hair: pick(['short', 'long', 'bun', 'curls', 'short', 'long'] as const, 7),
    hairColour: pick(['black', 'brown', 'brown', 'red', 'fair', 'black', 'grey'] as const, 11),
    skin: 1 + ((hash >>> 16) % skinTones),
    glasses: (hash >>> 21) % 6 === 0,
    headwear: 'none',
    seat: 'chair'
  };
}
