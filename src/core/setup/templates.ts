/** Starting points for a new setup, in three choices: what it is, how much or how many, and the background. */
import { arrange } from './arrangements';
import { builtInKit } from '../kit/builtInKit';
import { defaultCamera, newBackground, newPerson, newSetup, newThing } from './defaults';
import { cameraDistance } from './framing';
import { backgroundKinds } from './backgroundKinds';
import { beingNames } from './names';
import { aimAtGroup } from './groupFraming';
import { asPicture, sharpSubjects, usualFor, withSharpSubject, type SharpSubject } from './intents';
import { traitsOf } from './persons';
import { framings, type Camera, type Framing, type Person, type SetupKind, type Setup, type Wish } from './schema';

export const templates = [
  'onePerson',
  'couple',
  'smallGroup',
  'largeGroup',
  'personAndThing',
  'walking',
  'speaking',
  'pet'
] as const;
export type Template = (typeof templates)[number];

interface Described {
  readonly title: string;
  readonly detail: string;
  readonly picture: SetupKind;
}

export const templateWords: Readonly<Record<Template, Described>> = {
  onePerson: { title: 'One person', detail: 'a portrait', picture: 'onePerson' },
  couple: { title: 'A couple', detail: 'close together, heads turned to each other', picture: 'couple' },
  smallGroup: { title: 'A small group', detail: 'up to eight, side by side', picture: 'group' },
  largeGroup: { title: 'A large group', detail: 'rows on steps', picture: 'group' },
  personAndThing: {
    title: 'Person with an object',
    detail: 'rings, a bouquet, an instrument',
    picture: 'personAndThing'
  },
  walking: { title: 'Someone walking', detail: 'towards the camera, in bursts', picture: 'moving' },
  speaking: { title: 'A speaker', detail: 'from a distance, in low light', picture: 'onePerson' },
  pet: { title: 'Person with a pet', detail: 'a dog on the lap, muzzle in front of its eyes', picture: 'pet' }
};

/** The second choice: how much of them, how many, or what is to be sharp. */
export type Second =
  | { readonly kind: 'framing'; readonly usual: Framing }
  | { readonly kind: 'count'; readonly usual: number; readonly options: readonly number[] }
  | { readonly kind: 'sharp'; readonly usual: SharpSubject };

const framed = (usual: Framing): Second => ({ kind: 'framing', usual });

export const secondChoice: Readonly<Record<Template, Second>> = {
  onePerson: framed('headAndShoulders'),
  couple: framed('halfLength'),
  smallGroup: { kind: 'count', usual: 5, options: [3, 4, 5, 6, 8] },
  largeGroup: { kind: 'count', usual: 14, options: [10, 14, 20, 30, 40] },
  personAndThing: { kind: 'sharp', usual: 'thing' },
  walking: framed('fullLength'),
  speaking: framed('halfLength'),
  pet: framed('halfLength')
};

/** The values the second choice may take. */
export function secondOptions(template: Template): readonly (Framing | number | SharpSubject)[] {
  const second = secondChoice[template];
  if (second.kind === 'count') return second.options;
  return second.kind === 'framing' ? framings : sharpSubjects;
}

export interface TemplateChoices {
  readonly template: Template;
  /** One of `secondOptions`; the usual one when left out. */
  readonly second?: Framing | number | SharpSubject;
  /** What should become of the background; as usual for the picture when left out. */
  readonly wish?: Wish;
}

/** A setup ready to plan with. */
export function setupFrom({ template, second, wish }: TemplateChoices, id: string): Setup {
  const { title, picture } = templateWords[template];
  const choice = secondChoice[template];
  const options = secondOptions(template);
  const chosen = second !== undefined && options.includes(second) ? second : choice.usual;
  const posed = asPicture(filled(template, newSetup(id, title), chosen), picture);
  // To begin with, a wish for the background: what nobody asks for needs no answer.
  const usual = usualFor[picture].wish === 'free' ? 'hint' : usualFor[picture].wish;
  return { ...posed, backgrounds: posed.backgrounds.map((item) => ({ ...item, wish: wish ?? usual })) };
}

const person = (index: number, changes: Partial<Person> = {}) =>
  newPerson(`person-${index}`, `${beingNames[changes.being ?? 'adult']} ${index}`, changes);
const behind = (depthMm: number, detailMm = 40) => [
  newBackground('background-1', backgroundKinds.foliage.noun, { depthMm, detailMm })
];
const seenBy = (setup: Setup, changes: Partial<Camera>): Camera => ({ ...setup.camera, ...changes });

// eslint-disable-next-line max-lines-per-function -- a table: one case a template
function filled(template: Template, setup: Setup, chosen: Framing | number | SharpSubject): Setup {
  const framing = framings.find((item) => item === chosen) ?? 'halfLength';
  const placement = { kind: 'framing', framing } as const;
  switch (template) {
    case 'onePerson':
      return { ...setup, camera: seenBy(setup, { placement }) };
    case 'couple':
      return {
        ...setup,
        camera: seenBy(setup, { placement, heightMm: 1600 }),
        people: [
          person(1, { lateralMm: -130, headYawDeg: 25, bodyYawDeg: 40 }),
          person(2, { lateralMm: 130, headYawDeg: -25, bodyYawDeg: -40, statureMm: 1780 })
        ],
        backgrounds: behind(4000, 120)
      };
    case 'smallGroup':
    case 'largeGroup':
      return group(setup, typeof chosen === 'number' ? chosen : 5);
    case 'personAndThing':
      return withSharpSubject(
        {
          ...setup,
          things: [newThing('thing-1', 'thing', { heightMm: 1450 })],
          backgrounds: behind(3000, 150)
        },
        sharpSubjects.find((item) => item === chosen) ?? 'thing'
      );
    case 'walking':
      return {
        ...setup,
        camera: seenBy(setup, {
          lensId: 'lens-70-200',
          focalLengthMm: 135,
          orientation: 'portrait',
          placement,
          heightMm: 1300,
          secondsToShutter: 0.2
        }),
        backgrounds: behind(9000)
      };
    case 'speaking':
      return {
        ...setup,
        camera: seenBy(setup, {
          lensId: 'lens-70-200',
          focalLengthMm: 135,
          orientation: 'portrait',
          placement,
          stance: 'monopod'
        }),
        light: { ...setup.light, level: { kind: 'estimated', as: 'livingRoom' } },
        people: [person(1, { headYawDeg: 25, bodyYawDeg: 15, mood: 'restless' })],
        backgrounds: behind(3500, 30)
      };
    case 'pet':
      return {
        ...setup,
        camera: seenBy(setup, { placement, heightMm: 1100 }),
        people: [
          person(1, { posture: 'seated' }),
          newPerson('pet-1', `${beingNames.pet} 1`, {
            being: 'pet',
            posture: 'seated',
            depthMm: -60,
            lateralMm: 170,
            floorMm: 560,
            statureMm: 330
          })
        ],
        backgrounds: behind(3500, 30)
      };
  }
}

/** Rows as even as can be: one up to six, then as many as keep them short. */
function rowsFor(count: number): number {
  if (count <= 6) return 1;
  if (count <= 10) return 2;
  return count <= 24 ? 3 : 4;
}

/** A group picture of people who are there already: in rows, each as they are; a person alone as a portrait. */
export function groupOf(people: readonly Person[], id: string, name: string): Setup {
  const picture = people.length === 1 ? 'onePerson' : people.length === 2 ? 'couple' : 'group';
  const base = newSetup(id, name);
  if (people.length > 2) return asPicture(group(base, people.length, people), picture);
  const usual = filled(people.length === 1 ? 'onePerson' : 'couple', base, 'halfLength');
  const standing = usual.people.flatMap((place, index) => {
    const person = people[index];
    return person ? [{ ...place, ...traitsOf(person) }] : [];
  });
  return asPicture({ ...usual, people: standing }, picture);
}

function group(
  setup: Setup,
  count: number,
  those: readonly Person[] = Array.from({ length: count }, (_, index) => person(index + 1))
): Setup {
  const rows = rowsFor(count);
  const people = arrange(those, {
    kind: 'rows',
    count,
    rows,
    spacingMm: 560,
    rowDepthMm: 800,
    riserMm: rows > 1 ? 180 : 0,
    staggered: true
  });
  const wide = count > 10;
  const camera: Camera = {
    ...defaultCamera,
    lensId: wide ? 'lens-35' : 'lens-50',
    focalLengthMm: wide ? 35 : 50,
    placement: { kind: 'group', framing: 'fullLength', marginShare: 0.08 },
    heightMm: 1600
  };
  const body = builtInKit.bodies.find((item) => item.id === camera.bodyId);
  const aim = body ? aimAtGroup(people, camera, 'fullLength', cameraDistance({ camera, people }, body)) : {};
  return { ...setup, camera: { ...camera, ...aim }, people, backgrounds: behind(4000) };
}
