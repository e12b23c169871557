/** Names of the choices in the inspector. */
import type { Camera, Framing, Importance, SharpSet, Style, Wish } from '$core/setup/schema';

export const framingWords: Readonly<Record<Framing, string>> = {
  headAndShoulders: 'head and shoulders',
  halfLength: 'half length',
  threeQuarter: 'three-quarter',
  fullLength: 'full length'
};

type Named<T extends string> = readonly { readonly value: T; readonly name: string }[];

export const sharpChoices: Named<SharpSet> = [
  { value: 'nearEye', name: 'near eye' },
  { value: 'bothEyes', name: 'both eyes' },
  { value: 'eyesToNose', name: 'eyes to nose' },
  { value: 'wholeHead', name: 'whole head' }
];

export const importanceChoices: Named<Importance> = [
  { value: 'must', name: 'must' },
  { value: 'should', name: 'should' },
  { value: 'maySoft', name: 'may be soft' }
];

export const wishChoices: Named<Wish> = [
  { value: 'hide', name: 'hide' },
  { value: 'hint', name: 'hint' },
  { value: 'keep', name: 'keep' },
  { value: 'free', name: 'as it falls' }
];

export const styleChoices: Named<Style> = [
  { value: 'openAsFacesAllow', name: 'as open as the faces allow' },
  { value: 'lensBest', name: 'the lens’s best stop' },
  { value: 'deepAndSafe', name: 'deep and safe' }
];

export const stanceChoices: Named<Camera['stance']> = [
  { value: 'standing', name: 'standing' },
  { value: 'braced', name: 'braced' },
  { value: 'kneeling', name: 'kneeling' },
  { value: 'monopod', name: 'monopod' },
  { value: 'tripod', name: 'tripod' }
];

export const focusChoices: Named<Camera['focusMethod']> = [
  { value: 'crossPoint', name: 'cross-type or mirrorless point' },
  { value: 'ordinaryPoint', name: 'ordinary point' },
  { value: 'magnifier', name: 'by hand with the magnifier' },
  { value: 'byEye', name: 'by hand, by eye' }
];
