/** Names of the choices in the inspector. */
import type { SharpSubject } from '$core/setup/intents';
import { pointSizes } from '$core/kit/schema';
import { goalWords, styleWords } from '$core/setup/choices';
import { focusAreaWords, focusMethodWords, focusModeWords, recomposeWords } from '$core/setup/focusChoices';
import { pointSizeWords } from '$core/words/technique';
import {
  focusAreas,
  knownLights,
  type Camera,
  type Form,
  type Importance,
  type KnownLight,
  type SetupKind,
  type Scenery,
  type SharpSet,
  type ApertureStyle,
  type Wish,
  type Mood
} from '$core/setup/schema';
import { backgroundKinds, type Surface } from '$core/setup/backgroundKinds';
import { knownLightWords } from '$core/words/light';

export { framingWords } from '$core/words/why';

type Named<T extends string> = readonly { readonly value: T; readonly name: string }[];

/** In the order they stand in. */
const named = <T extends string>(words: Readonly<Record<T, string>>): Named<T> =>
  (Object.keys(words) as T[]).map((value) => ({ value, name: words[value] }));

export const sharpChoices: Named<SharpSet> = [
  { value: 'nearEye', name: 'near eye' },
  { value: 'bothEyes', name: 'both eyes' },
  { value: 'eyesToNose', name: 'eyes to nose' },
  { value: 'wholeHead', name: 'whole head' }
];

export const importanceChoices: Named<Importance> = [
  { value: 'must', name: 'must be sharp' },
  { value: 'should', name: 'should be sharp' },
  { value: 'maySoft', name: 'may be soft' }
];

export const wishChoices = named<Wish>(goalWords);

export const styleChoices = named<ApertureStyle>(styleWords);

export const stanceChoices: Named<Camera['stance']> = [
  { value: 'standing', name: 'standing' },
  { value: 'braced', name: 'braced' },
  { value: 'kneeling', name: 'kneeling' },
  { value: 'monopod', name: 'monopod' },
  { value: 'tripod', name: 'tripod' }
];

export const focusChoices = named<Camera['focusMethod']>(focusMethodWords);

export const areaChoices: Named<Camera['focusArea']> = focusAreas.map((value) => ({
  value,
  name: focusAreaWords[value]
}));

export const pointSizeChoices: Named<Camera['pointSize']> = pointSizes.map((value) => ({
  value,
  name: pointSizeWords[value]
}));

export const pictureChoices: Named<SetupKind> = [
  { value: 'onePerson', name: 'one person' },
  { value: 'couple', name: 'a couple' },
  { value: 'group', name: 'a group' },
  { value: 'personAndThing', name: 'person with object' },
  { value: 'moving', name: 'moving' },
  { value: 'pet', name: 'with a pet' }
];

export const pictureWords: Readonly<Record<SetupKind, string>> = {
  onePerson: 'one person',
  couple: 'a couple',
  group: 'a group',
  personAndThing: 'a person with an object',
  moving: 'someone moving',
  pet: 'someone with a pet'
};

export const sharpSubjectChoices: Named<SharpSubject> = [
  { value: 'thing', name: 'the object, person soft' },
  { value: 'person', name: 'the person, object soft' },
  { value: 'both', name: 'both' }
];

export const modeChoices = named<Camera['focusMode']>(focusModeWords);

export const recomposeChoices = named<Camera['recompose']>(recomposeWords);

export const moodChoices: Named<Mood> = [
  { value: 'still', name: 'still, posed' },
  { value: 'restless', name: 'talks or fidgets' },
  { value: 'lively', name: 'plays or dances' }
];

export const knownLightChoices: Named<KnownLight> = knownLights.map((value) => ({
  value,
  name: knownLightWords[value]
}));

export const formChoices: Named<Form> = [
  { value: 'box', name: 'a plain block' },
  { value: 'rings', name: 'rings' },
  { value: 'bouquet', name: 'a bouquet' },
  { value: 'tuba', name: 'a tuba' }
];

/** In the order one looks for them. */
const surfaceOrder: readonly Surface[] = [
  'foliage',
  'trunks',
  'arch',
  'columns',
  'panes',
  'brick',
  'lettering',
  'lights',
  'candles',
  'people',
  'horizon',
  'plain'
];
export const surfaceChoices: Named<Surface> = surfaceOrder.map((value) => ({
  value,
  name: backgroundKinds[value].choice
}));

export const sceneryChoices: Named<Scenery> = [
  { value: 'plain', name: 'a plain room' },
  { value: 'palmHouse', name: 'a palm house' },
  { value: 'bandstand', name: 'a bandstand by the water' }
];
