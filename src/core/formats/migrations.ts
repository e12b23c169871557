/**
 * Steps from one version of the stored data to the next. Every release that changes the schema adds a step here, a Dexie
 * version that runs it (src/lib/data/database.ts) and a file of the old version to the tests. Steps are never edited.
 * They take data as it was stored, so they read it defensively and leave what they do not know for the schema to refuse.
 */
import { lookFor } from '../people/looks';

type Loose = { readonly [key: string]: unknown };

const record = (value: unknown): Loose => (typeof value === 'object' && value !== null ? (value as Loose) : {});
const list = (value: unknown): readonly unknown[] => (Array.isArray(value) ? value : []);

/** Version 1 had neither the turn of the shoulders, nor the kind of picture, nor what anything looks like. */
function setupFromVersion1(setup: unknown): unknown {
  const old = record(setup);
  const people = list(old['people']).map(record);
  return {
    ...old,
    place: { ...record(old['place']), scenery: 'plain' },
    people: people.map((person) => ({
      ...person,
      bodyYawDeg: Math.round(Number(person['headYawDeg']) / 2) + 0,
      look: lookFor(String(person['id']))
    })),
    things: list(old['things']).map((thing) => ({ ...record(thing), form: 'box' })),
    backgrounds: list(old['backgrounds']).map((item) => ({ ...record(item), surface: 'foliage' })),
    intent: { ...record(old['intent']), picture: pictureOf(people, list(old['things']).length) }
  };
}

function pictureOf(people: readonly Loose[], things: number): string {
  if (people.some((person) => person['being'] === 'pet')) return 'pet';
  if (people.some((person) => person['towardsMmPerS'] !== 0 || person['acrossMmPerS'] !== 0)) return 'moving';
  if (things > 0) return 'personAndThing';
  return people.length < 2 ? 'onePerson' : people.length === 2 ? 'couple' : 'group';
}

/** Version 1 did not know where a body can focus. */
function bodyFromVersion1(body: unknown): unknown {
  return { ...record(body), focusGrid: { columns: 13, rows: 9, widthShare: 0.92, heightShare: 0.9 } };
}

const bodyMigrations: Readonly<Record<number, (body: unknown) => unknown>> = { 1: bodyFromVersion1 };

/** Steps for one setup, by the version they start from. */
const setupMigrations: Readonly<Record<number, (setup: unknown) => unknown>> = { 1: setupFromVersion1 };

/** The version of the setups written today. */
export const setupVersion = 2;

function migrate(steps: typeof setupMigrations, data: unknown, fromVersion: number): unknown {
  let current = data;
  for (let from = fromVersion; from < setupVersion; from++) current = steps[from]?.(current) ?? current;
  return current;
}

/** A setup stored by an earlier release, as this one stores it; not yet validated. */
export function migrateSetup(setup: unknown, fromVersion: number): unknown {
  return migrate(setupMigrations, setup, fromVersion);
}

/** The same for a body of the kit. */
export function migrateBody(body: unknown, fromVersion: number): unknown {
  return migrate(bodyMigrations, body, fromVersion);
}

/** The same for a whole job file. */
export function migrateJobFile(file: object, fromVersion: number): unknown {
  const { setups, kit } = record(file);
  const bodies = record(kit)['bodies'];
  return {
    ...file,
    version: setupVersion,
    ...(Array.isArray(bodies)
      ? { kit: { ...record(kit), bodies: bodies.map((body) => migrateBody(body, fromVersion)) } }
      : {}),
    setups: Array.isArray(setups) ? setups.map((setup) => migrateSetup(setup, fromVersion)) : setups
  };
}
