/** Names of the choices in the inspector. */
import type { SharpSubject } from '$core/setup/intents';
import { pointSizes } from '$core/kit/schema';
import { areaWords, pointSizeWords } from '$core/words/technique';
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
  { value: 'hide', name: 'vanish' },
  { value: 'hint', name: 'hinted' },
  { value: 'keep', name: 'recognisable' },
  { value: 'free', name: 'as it falls' }
];

export const styleChoices: Named<ApertureStyle> = [
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
  { value: 'byEye', name: 'by hand, by eye' },
  { value: 'scale', name: 'by hand, by the distance scale' }
];

export const areaChoices: Named<Camera['focusArea']> = focusAreas.map((value) => ({ value, name: areaWords[value] }));

export const pointSizeChoices: Named<Camera['pointSize']> = pointSizes.map((value) => ({
  value,
  name: pointSizeWords[value]
}));

export const pictureChoices: Named<SetupKind> = [
  { value: 'onePerson', name: 'one person' },
  { value: 'couple', name: 'a couple' },
  { value: 'group', name: 'a group' },
  { value: 'personAndThing', name: 'person and thing' },
  { value: 'moving', name: 'moving' },
  { value: 'pet', name: 'with a pet' }
];

export const pictureWords: Readonly<Record<SetupKind, string>> = {
  onePerson: 'one person',
  couple: 'a couple',
  group: 'a group',
  personAndThing: 'a person and a thing',
  moving: 'somebody moving',
  pet: 'somebody with a pet'
};

export const sharpSubjectChoices: Named<SharpSubject> = [
  { value: 'thing', name: 'the thing, the person soft' },
  { value: 'person', name: 'the person, the thing soft' },
  { value: 'both', name: 'both' }
];

export const modeChoices: Named<Camera['focusMode']> = [
  { value: 'single', name: 'single' },
  { value: 'continuous', name: 'continuous' },
  { value: 'automatic', name: 'switches by itself' }
];

export const recomposeChoices: Named<Camera['recompose']> = [
  { value: 'none', name: 'move the point' },
  { value: 'wrists', name: 'centre point, turn the wrists' },
  { value: 'shoulders', name: 'centre point, turn the shoulders' },
  { value: 'waist', name: 'centre point, turn at the waist' },
  { value: 'leaning', name: 'centre point, lean the body' }
];

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
