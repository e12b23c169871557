/** What a new job, setup, person or background starts with. Every value is a default the photographer sees and edits. */
import { eyeHeight } from '../people/anatomy';
import type { Background, Camera, Job, Person, Setup, Thing } from './schema';

export const defaultStatureMm = { adult: 1680, child: 1150, baby: 720 } as const;

export const defaultCamera: Camera = {
  bodyId: 'body-main',
  lensId: 'lens-85',
  focalLengthMm: 85,
  orientation: 'landscape',
  placement: { kind: 'framing', framing: 'headAndShoulders' },
  lateralMm: 0,
  heightMm: 1550,
  yawDeg: 0,
  pitchDeg: 0,
  focusSurface: 'flat',
  stance: 'standing',
  focusMethod: 'crossPoint',
  secondsToShutter: 0.5
};

export function newPerson(id: string, name: string, changes: Partial<Person> = {}): Person {
  return {
    id,
    name,
    depthMm: 0,
    lateralMm: 0,
    floorMm: 0,
    statureMm: defaultStatureMm[changes.age ?? 'adult'],
    age: 'adult',
    posture: 'standing',
    headYawDeg: 0,
    headPitchDeg: 0,
    sharp: 'bothEyes',
    importance: 'must',
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
    ...changes
  };
}

export function newBackground(id: string, name: string, changes: Partial<Background> = {}): Background {
  return { id, name, depthMm: 2500, lateralMm: 0, detailMm: 40, wish: 'hide', ...changes };
}

export function newSetup(id: string, name: string, changes: Partial<Setup> = {}): Setup {
  const person = newPerson('person-1', 'Person 1');
  return {
    id,
    name,
    notes: '',
    camera: { ...defaultCamera, heightMm: Math.round(eyeHeight(person.statureMm, person.posture) / 10) * 10 },
    place: { backUpMm: null },
    people: [person],
    things: [],
    backgrounds: [newBackground('background-1', 'Background')],
    intent: {
      viewing: { kind: 'traditional' },
      style: 'openAsFacesAllow',
      oddsWanted: 0.9,
      stop: { kind: 'byStyle' },
      target: { kind: 'best' }
    },
    ...changes
  };
}

export function newJob(id: string, name: string, changes: Partial<Job> = {}): Job {
  return { id, name, date: null, notes: '', stopStep: 'half', ...changes };
}
