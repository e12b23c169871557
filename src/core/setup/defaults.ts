/** What a new job, setup, person or background starts with. Every value is a default the photographer sees and edits. */
import { eyeHeight } from '../people/anatomy';
import { backgroundKinds } from './backgroundKinds';
import { beingNames } from './names';
import { appearanceFor } from '../people/appearance';
import { notTaken, usualSchedule } from './schedule';
import type { Background, Camera, Light, Person, Setup, Thing } from './schema';

export const defaultStatureMm = { adult: 1680, child: 1150, baby: 720, pet: 500 } as const;

/** Nose before the eyes of a long-nosed dog, mm (from memory). */
export const defaultMuzzleMm = 110;

export const defaultCamera: Camera = {
  bodyId: 'body-main',
  lensId: 'lens-85',
  focalLengthMm: 85,
  adapterIds: [],
  cropMode: null,
  orientation: 'landscape',
  placement: { kind: 'framing', framing: 'headAndShoulders' },
  lateralMm: 0,
  heightMm: 1550,
  yawDeg: 0,
  pitchDeg: 0,
  focusSurface: 'flat',
  stance: 'standing',
  focusMethod: 'crossPoint',
  focusArea: 'point',
  pointSize: 'small',
  fineGrid: false,
  focusMode: 'single',
  trigger: 'halfPress',
  drive: 'one',
  exposureMode: 'aperturePriority',
  metering: 'whole',
  recompose: 'none',
  secondsToShutter: 0.5,
  stitch: null
};

/** A flash as photographers carry one (common practice, no source). */
export const defaultFlash: NonNullable<Light['flash']> = {
  guideNumberM: 40,
  distanceMm: 2000,
  leastPower: 1 / 128,
  use: 'main',
  underStops: 1.5
};

/** Longest shutter times: common practice, no source. */
export const defaultLight: Light = {
  level: { kind: 'unknown' },
  from: 'front',
  filterStops: 0,
  flash: null,
  floors: {
    perFocalLength: 1,
    peopleS: 1 / 60,
    restlessS: 1 / 125,
    groupS: 1 / 125,
    childS: 1 / 400,
    movingS: 1 / 250,
    livelyS: 1 / 500,
    stabiliserCounts: true
  },
  shutterS: null
};

export function newPerson(id: string, name: string, changes: Partial<Person> = {}): Person {
  return {
    id,
    name,
    depthMm: 0,
    lateralMm: 0,
    floorMm: 0,
    statureMm: defaultStatureMm[changes.being ?? 'adult'],
    being: 'adult',
    posture: 'standing',
    headYawDeg: 0,
    bodyYawDeg: 0,
    headPitchDeg: 0,
    muzzleMm: changes.being === 'pet' ? defaultMuzzleMm : 0,
    role: '',
    swayMm: null,
    towardsMmPerS: 0,
    acrossMmPerS: 0,
    mood: 'still',
    sharp: 'bothEyes',
    importance: 'must',
    look: appearanceFor(id),
    ...changes
  };
}

export function newThing(id: string, name: string, changes: Partial<Thing> = {}): Thing {
  return {
    id,
    name,
    depthMm: -300,
    lateralMm: 0,
    heightMm: 1200,
    widthMm: 60,
    tallMm: 60,
    deepMm: 20,
    importance: 'must',
    held: true,
    form: 'box',
    ...changes
  };
}

export function newBackground(id: string, name: string, changes: Partial<Background> = {}): Background {
  return { id, name, depthMm: 2500, lateralMm: 0, detailMm: 40, wish: 'hide', surface: 'foliage', ...changes };
}

export function newSetup(id: string, name: string, changes: Partial<Setup> = {}): Setup {
  const person = newPerson('person-1', `${beingNames.adult} 1`);
  return {
    id,
    name,
    notes: '',
    camera: { ...defaultCamera, heightMm: Math.round(eyeHeight(person.statureMm, person.posture) / 10) * 10 },
    place: { scenery: 'plain', backUpMm: null, behindMm: null, sideMm: null },
    light: defaultLight,
    people: [person],
    things: [],
    backgrounds: [newBackground('background-1', backgroundKinds.foliage.noun)],
    intent: {
      picture: 'onePerson',
      viewing: { kind: 'traditional' },
      style: 'openAsFacesAllow',
      oddsWanted: 0.9,
      stop: { kind: 'byStyle' },
      target: { kind: 'best' },
      shapes: [],
      frames: 'one'
    },
    ticked: [],
    schedule: usualSchedule,
    taken: notTaken,
    ...changes
  };
}
