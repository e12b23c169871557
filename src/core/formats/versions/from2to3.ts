/**
 * From version 2 to version 3. Version 2 described everybody and every place anew in each setup. Two people become one
 * only where name, being, stature, muzzle and look agree within the job and they never stand in one setup together; a
 * place is shared by setups whose scenery, room and light agree, and its backgrounds are those of the first.
 */
import type { JobFile, Person, Setup } from './schema2';

/** What version 2 lacked of a person. */
const newTraits = { role: '', swayMm: null } as const;

/** What version 2 called the scene of a light is its level. */
function lightOf({ scene, ...rest }: Setup['light']) {
  return { ...rest, level: scene };
}

/** A setup as it is planned: nothing is shared between setups there. */
export function setup2to3(setup: Setup) {
  return { ...setup, light: lightOf(setup.light), people: setup.people.map((person) => ({ ...person, ...newTraits })) };
}

function traitsOf({ id, name, statureMm, being, muzzleMm, look }: Person) {
  return { id, name, statureMm, being, muzzleMm, look, ...newTraits };
}

function standingOf({ name: _n, statureMm: _s, being: _b, muzzleMm: _m, look: _l, ...standing }: Person) {
  return standing;
}

/** Content as text, whatever the order of keys. */
function contentOf(value: unknown): string {
  return JSON.stringify(value, (_, part: unknown) =>
    typeof part === 'object' && part !== null && !Array.isArray(part)
      ? Object.fromEntries(Object.entries(part).sort(([a], [b]) => (a < b ? -1 : 1)))
      : part
  );
}

/** An id like the one wished for that is not yet taken; it is taken from now on. */
function freeId(wished: string, taken: Set<string>): string {
  let id = wished;
  for (let n = 2; taken.has(id); n++) id = `${wished.slice(0, 56)}-${n}`;
  taken.add(id);
  return id;
}

type Traits = ReturnType<typeof traitsOf>;

interface Place {
  readonly id: string;
  readonly name: string;
  readonly scenery: Setup['place']['scenery'];
  readonly room: Omit<Setup['place'], 'scenery'>;
  readonly backgrounds: Setup['backgrounds'];
  readonly light: ReturnType<typeof lightOf>;
}

/** The setups of one job. `takenIds` holds the ids of people and places elsewhere in the store; those given are added to it. */
export function setups2to3(setups: readonly Setup[], takenIds: Set<string>) {
  const people: Traits[] = [];
  const alike = new Map<string, Traits[]>();
  const places = new Map<string, Place>();

  const personFor = (person: Person, standingHere: ReadonlySet<string>): string => {
    const { id: _id, ...content } = traitsOf(person);
    const key = contentOf(content);
    const known = alike.get(key)?.find((item) => !standingHere.has(item.id));
    if (known) return known.id;
    const wished = standingHere.has(person.id) ? `${person.id.slice(0, 56)}-person` : person.id;
    const made = { ...traitsOf(person), id: freeId(wished, takenIds) };
    people.push(made);
    alike.set(key, [...(alike.get(key) ?? []), made]);
    return made.id;
  };

  const placeFor = (setup: Setup): Place => {
    const { scenery, ...room } = setup.place;
    const light = lightOf(setup.light);
    const key = contentOf({ scenery, room, light });
    const known = places.get(key);
    if (known) return known;
    const name = scenery === 'palmHouse' ? 'Palm house' : scenery === 'bandstand' ? 'Bandstand' : 'Place';
    const alreadyNamed = [...places.values()].filter((place) => place.scenery === scenery).length;
    const made: Place = {
      id: freeId(`place-${places.size + 1}`, takenIds),
      name: alreadyNamed === 0 ? name : `${name} (${alreadyNamed + 1})`,
      scenery,
      room,
      backgrounds: setup.backgrounds,
      light
    };
    places.set(key, made);
    return made;
  };

  const migrated = setups.map((setup) => {
    const { place: _place, light: _light, backgrounds, people: standing, intent, ...rest } = setup;
    // Version 3 tells people and things apart by id alone.
    const here = new Set(rest.things.map((thing) => thing.id));
    const ids = new Map<string, string>();
    for (const person of standing) {
      const id = personFor(person, here);
      here.add(id);
      ids.set(person.id, id);
    }
    const place = placeFor(setup);
    const { target } = intent;
    const sameBackgrounds = contentOf(place.backgrounds) === contentOf(backgrounds);
    return {
      ...rest,
      placeId: place.id,
      own: { scenery: null, room: null, backgrounds: sameBackgrounds ? null : backgrounds, light: null },
      people: standing.map((person) => ({ ...standingOf(person), id: ids.get(person.id) ?? person.id })),
      intent: {
        ...intent,
        // A target that nobody in the picture has falls back to the best eye, as it did.
        target: target.kind === 'eye' ? { ...target, personId: ids.get(target.personId) ?? target.personId } : target
      }
    };
  });
  return { people, places: [...places.values()], setups: migrated };
}

/** Figures every job of version 2 was planned with. */
const habitsOfVersion2 = null;

export function job2to3(job: JobFile['job']) {
  return { ...job, habits: habitsOfVersion2 };
}

export function jobFile2to3({ format, job, kit, setups }: JobFile) {
  const parts = setups2to3(setups, new Set());
  return { format, version: 3 as const, job: job2to3(job), kit, ...parts };
}
