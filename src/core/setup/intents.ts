/**
 * What a photographer wants, by kind of picture. The values are where a new setup starts and what the screen names as
 * usual; all are common practice without a source, and all can be changed.
 */
import { defaultHabits, type Habits } from '../habits/habits';
import type { Camera, Importance, Intent, Person, SetupKind, Setup, SharpSet, Wish } from './schema';

export interface Usual {
  readonly sharp: SharpSet;
  readonly wish: Wish;
  readonly style: Intent['style'];
  readonly oddsWanted: number;
  readonly focusMode: Camera['focusMode'];
}

export const usualFor: Readonly<Record<SetupKind, Usual>> = {
  onePerson: { sharp: 'bothEyes', wish: 'soft', style: 'openAsFacesAllow', oddsWanted: 0.9, focusMode: 'single' },
  couple: { sharp: 'bothEyes', wish: 'hint', style: 'openAsFacesAllow', oddsWanted: 0.9, focusMode: 'single' },
  group: { sharp: 'bothEyes', wish: 'free', style: 'deepAndSafe', oddsWanted: 0.95, focusMode: 'single' },
  personAndThing: { sharp: 'nearEye', wish: 'hint', style: 'openAsFacesAllow', oddsWanted: 0.9, focusMode: 'single' },
  moving: { sharp: 'nearEye', wish: 'soft', style: 'openAsFacesAllow', oddsWanted: 0.8, focusMode: 'continuous' },
  pet: { sharp: 'bothEyes', wish: 'soft', style: 'openAsFacesAllow', oddsWanted: 0.8, focusMode: 'single' }
};

/**
 * Makes a setup another kind of picture. Whatever still is as usual for the old kind becomes as usual for the new one;
 * what somebody has set otherwise stays.
 */
export function asPicture(setup: Setup, picture: SetupKind, { walkingMmPerS }: Habits = defaultHabits): Setup {
  const from = usualFor[setup.intent.picture];
  const to = usualFor[picture];
  const follow = <K extends keyof Usual>(key: K, value: Usual[K]): Usual[K] => (value === from[key] ? to[key] : value);
  const still = setup.people.every((person) => person.towardsMmPerS === 0 && person.acrossMmPerS === 0);
  const moves = (person: Person): Pick<Person, 'towardsMmPerS'> => {
    if (picture === 'moving' && still) return { towardsMmPerS: walkingMmPerS };
    // The pace this kind of picture brought goes with it.
    const brought = setup.intent.picture === 'moving' && person.towardsMmPerS === walkingMmPerS;
    return { towardsMmPerS: picture !== 'moving' && brought ? 0 : person.towardsMmPerS };
  };
  return {
    ...setup,
    people: setup.people.map((person) => ({ ...person, ...moves(person), sharp: follow('sharp', person.sharp) })),
    backgrounds: setup.backgrounds.map((item) => ({ ...item, wish: follow('wish', item.wish) })),
    camera: { ...setup.camera, focusMode: follow('focusMode', setup.camera.focusMode) },
    intent: {
      ...setup.intent,
      picture,
      style: follow('style', setup.intent.style),
      oddsWanted: follow('oddsWanted', setup.intent.oddsWanted)
    }
  };
}

export const sharpSubjects = ['thing', 'person', 'both'] as const;
export type SharpSubject = (typeof sharpSubjects)[number];

const importancesFor: Readonly<Record<SharpSubject, { readonly people: Importance; readonly things: Importance }>> = {
  thing: { people: 'maySoft', things: 'must' },
  person: { people: 'must', things: 'maySoft' },
  both: { people: 'must', things: 'must' }
};

/** Which of person and thing is to be sharp; null when they are told apart one by one. */
export function sharpSubject({ people, things }: Setup): SharpSubject | null {
  const all = (items: readonly { readonly importance: Importance }[], wanted: Importance) =>
    items.length > 0 && items.every((item) => item.importance === wanted);
  return (
    sharpSubjects.find(
      (subject) => all(people, importancesFor[subject].people) && all(things, importancesFor[subject].things)
    ) ?? null
  );
}

/** Thing sharp with the person soft, person sharp with the thing soft, or both sharp. A focus put by hand is let go. */
export function withSharpSubject(setup: Setup, subject: SharpSubject): Setup {
  const { people, things } = importancesFor[subject];
  return {
    ...setup,
    people: setup.people.map((person) => ({ ...person, importance: people })),
    things: setup.things.map((thing) => ({ ...thing, importance: things })),
    intent: { ...setup.intent, target: { kind: 'best' } }
  };
}

/** The one value all items share; null when they differ or there are none. */
export function shared<T, V>(items: readonly T[], value: (item: T) => V): V | null {
  const [first] = items;
  if (first === undefined) return null;
  return items.every((item) => value(item) === value(first)) ? value(first) : null;
}
