/** Starting points for a new setup: what are you shooting? */
import { defaultCamera, newBackground, newPerson, newSetup, newThing } from './defaults';
import type { Setup } from './schema';

export const templates = ['onePerson', 'couple', 'rowOfFive', 'personAndThing'] as const;
export type Template = (typeof templates)[number];

export const templateWords: Readonly<Record<Template, { readonly title: string; readonly detail: string }>> = {
  onePerson: { title: 'One person', detail: 'head and shoulders, background hidden' },
  couple: { title: 'A couple', detail: 'half length, close together, background hinted' },
  rowOfFive: { title: 'A small group', detail: 'five in a row, full length' },
  personAndThing: { title: 'A person and a thing', detail: 'the rings or the bouquet sharp, the person soft behind' }
};

/** A setup ready to plan with. */
export function setupFrom(template: Template, id: string): Setup {
  const setup = newSetup(id, templateWords[template].title);
  const framed = (framing: 'halfLength' | 'fullLength') => ({ kind: 'framing', framing }) as const;
  switch (template) {
    case 'onePerson':
      return setup;
    case 'couple':
      return {
        ...setup,
        camera: { ...setup.camera, placement: framed('halfLength'), heightMm: 1600 },
        people: [
          newPerson('person-1', 'Person 1', { lateralMm: -130, headYawDeg: 25 }),
          newPerson('person-2', 'Person 2', { lateralMm: 130, headYawDeg: -25, statureMm: 1780 })
        ],
        backgrounds: [newBackground('background-1', 'Background', { depthMm: 4000, detailMm: 120, wish: 'hint' })]
      };
    case 'rowOfFive':
      return {
        ...setup,
        camera: {
          ...defaultCamera,
          lensId: 'lens-50',
          focalLengthMm: 50,
          placement: framed('fullLength'),
          heightMm: 1400
        },
        people: Array.from({ length: 5 }, (_, index) =>
          newPerson(`person-${index + 1}`, `Person ${index + 1}`, {
            lateralMm: (index - 2) * 520,
            depthMm: Math.abs(index - 2) * 40
          })
        ),
        backgrounds: [newBackground('background-1', 'Background', { depthMm: 4000, wish: 'free' })]
      };
    case 'personAndThing':
      return {
        ...setup,
        people: setup.people.map((person) => ({ ...person, importance: 'maySoft' })),
        things: [newThing('thing-1', 'Thing', { heightMm: 1450 })]
      };
  }
}
