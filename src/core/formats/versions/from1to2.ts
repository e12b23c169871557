/** From version 1 to version 2, frozen: the turn of the shoulders, the kind of picture, what everything looks like, focus grids. */
import type { Body1, JobFile1, Setup1 } from './schema1';
import type { Body, JobFile, Person, Setup } from './schema2';

type Look = Person['look'];

/** FNV-1a (Fowler, Noll and Vo), mixed: the same number for the same text. */
function hashOf(text: string): number {
  let hash = 0x811c9dc5;
  for (const letter of text) hash = Math.imul(hash ^ (letter.codePointAt(0) ?? 0), 0x01000193) >>> 0;
  hash ^= hash >>> 15;
  return Math.imul(hash, 0x2c1b3c6d) >>> 0;
}

function lookFor(id: string): Look {
  const hash = hashOf(id);
  const pick = <T>(list: readonly T[], shift: number): T => list[(hash >>> shift) % list.length] as T;
  return {
    outfit: pick(['suit', 'dress', 'shirt', 'coat', 'dress'] as const, 3),
    outfitColour: pick(['ivory', 'black', 'grey', 'navy', 'blue', 'green', 'red', 'sand'] as const, 24),
    hair: pick(['short', 'long', 'bun', 'curls', 'short', 'long'] as const, 7),
    hairColour: pick(['black', 'brown', 'brown', 'red', 'fair', 'black', 'grey'] as const, 11),
    skin: 1 + ((hash >>> 16) % 6),
    glasses: (hash >>> 21) % 6 === 0,
    seat: 'chair'
  };
}

function pictureOf({ people, things }: Setup1): Setup['intent']['picture'] {
  if (people.some((person) => person.being === 'pet')) return 'pet';
  if (people.some((person) => person.towardsMmPerS !== 0 || person.acrossMmPerS !== 0)) return 'moving';
  if (things.length > 0) return 'personAndThing';
  return people.length < 2 ? 'onePerson' : people.length === 2 ? 'couple' : 'group';
}

export function setup1to2(setup: Setup1): Setup {
  return {
    ...setup,
    place: { ...setup.place, scenery: 'plain' },
    people: setup.people.map((person) => ({
      ...person,
      bodyYawDeg: Math.round(person.headYawDeg / 2) + 0,
      look: lookFor(person.id)
    })),
    things: setup.things.map((thing) => ({ ...thing, form: 'box' as const })),
    backgrounds: setup.backgrounds.map((background) => ({ ...background, surface: 'foliage' as const })),
    intent: { ...setup.intent, picture: pictureOf(setup) }
  };
}

export function body1to2(body: Body1): Body {
  return { ...body, focusGrid: { columns: 13, rows: 9, widthShare: 0.92, heightShare: 0.9 } };
}

export function jobFile1to2(file: JobFile1): JobFile {
  return {
    ...file,
    version: 2,
    kit: { ...file.kit, bodies: file.kit.bodies.map(body1to2) },
    setups: file.setups.map(setup1to2)
  };
}
