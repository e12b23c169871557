/** What is done with setups as a whole. */
import type { ListedShot } from '$core/formats/shotList';
import { copiedParts } from '$core/job/copy';
import { asBefore } from '$core/job/defaults';
import { traitsOf } from '$core/setup/persons';
import { beingNames, numbered } from '$core/setup/names';
import { asPartOfJob, renamePeople } from '$core/job/normalise';
import { withKitOnOffer } from '$core/setup/chooseKit';
import type { Kit } from '$core/kit/schema';
import type { Setup } from '$core/setup/schema';
import { withSchools } from '$core/technique/schools';
import { limits } from '$core/schema/values';
import { newPerson } from '$core/setup/defaults';
import { groupOf, setupFrom, type TemplateChoices } from '$core/setup/templates';
import type { JobPerson } from '$core/job/schema';
import { addition, freeName, newRow, readJobParts, type Change } from '$lib/data';
import type { SetupRow } from './openJob.svelte';
import { errorReason, type Services } from './services';

export class Setups {
  readonly #parts: Services;

  constructor(parts: Services) {
    this.#parts = parts;
  }

  /** A new setup in the open job, at the place of the last one. Null, with a message, when there are enough. */
  add(choices: TemplateChoices): string | null {
    const { open, newId, settings } = this.#parts;
    const fitting = this.#asUsual(fitted(setupFrom(choices, newId()), open.offered));
    const base = withSchools(open.input(fitting), settings.now.schools);
    const ids = new Map(base.people.map((person) => [person.id, newId()]));
    return this.addMade(renamePeople(base, (id) => ids.get(id) ?? id));
  }

  /** A setup that is made already, with people of its own. Null, with a message, when there is no room. */
  addMade(setup: Setup): string | null {
    const taken = this.#parts.open.people.map((person) => person.name);
    const people = setup.people.map((person) => {
      const free = nextName(person.name, taken);
      taken.push(free);
      return { ...person, name: free };
    });
    return this.#insert(`${setup.name} added`, [{ setup: { ...setup, people } }])?.[0] ?? null;
  }

  #full(more = 1): boolean {
    const { length } = this.#parts.open.rows;
    if (length + more <= limits.maxSetups) return false;
    const has = more === 1 ? '' : `; this one has ${length}`;
    this.#parts.messages.problem(`A job holds at most ${limits.maxSetups} setups${has}. Start another job for more.`);
    return true;
  }

  duplicate(row: SetupRow): string | null {
    const { store, open, newId } = this.#parts;
    const stored = open.stored(row.id);
    if (!stored || this.#full()) return null;
    const { rows } = open;
    const next = rows[rows.indexOf(row) + 1];
    const name = freeName(
      row.setup.name,
      rows.map((item) => item.setup.name)
    );
    const id = newId();
    const position = next ? (row.position + next.position) / 2 : row.position + 1;
    store.edit(`${name} added`, (draft) =>
      draft.put('setups', newRow(id, { ...asBefore(stored.value), id, name }, { owner: row.jobId, position }))
    );
    return id;
  }

  /** Copies a setup of the open job to another one, with its people and its place. */
  copy(row: SetupRow, toJobId: string): Promise<void> {
    return this.transfer([row], toJobId, 'copied');
  }

  /** Copies or moves setups of the open job to another one, in their order, with their people and places. */
  async transfer(rows: readonly SetupRow[], toJobId: string, how: 'copied' | 'moved'): Promise<void> {
    const { database, store, open, messages, newId, now } = this.#parts;
    const stored = rows.flatMap((row) => open.stored(row.id) ?? []);
    const target = store.table('jobs').get(toJobId);
    if (stored.length === 0 || !target || toJobId === open.id) return;
    const what = stored.length === 1 ? (stored[0]?.value.name ?? '') : `${stored.length} setups`;
    try {
      await store.flush();
      const there = await readJobParts(database, toJobId);
      if (there.setups.length + stored.length > limits.maxSetups) {
        messages.problem(`${target.value.name} has ${there.setups.length} setups; a job holds ${limits.maxSetups}.`);
        return;
      }
      const cast = { people: [...there.people], places: [...there.places] };
      const at = now();
      const changes = stored.flatMap((row, index): Change[] => {
        const parts = copiedParts(row.value, { people: open.people, places: open.places }, cast, newId);
        const owner = toJobId;
        const news = [
          ...parts.people.map((item, more) => addition('people', item, { owner, position: cast.people.length + more })),
          ...parts.places.map((item, more) => addition('places', item, { owner, position: cast.places.length + more })),
          ...parts.setups.map((setup) =>
            // What is copied is still to be done; what is moved keeps what was.
            addition('setups', how === 'moved' ? setup : asBefore(setup), { owner, position: at + index })
          ),
          ...(how === 'moved' ? [{ table: 'setups', id: row.id, before: row, after: null }] : [])
        ];
        cast.people.push(...parts.people);
        cast.places.push(...parts.places);
        return news;
      });
      const step = await store.apply(`${what} ${how}`, changes);
      messages.done(`${what} ${how} to ${target.value.name}.`, step);
    } catch (error) {
      messages.problem(`It could not be ${how}: ${errorReason(error)}`);
    }
  }

  /** A new group picture of some of the job's people. Null, with a message, when there is no room. */
  addGroup(people: readonly JobPerson[]): string | null {
    if (people.length === 0) return null;
    const name = people.length === 1 ? (people[0]?.name ?? '') : `Group of ${people.length}`;
    return this.#insert(`${name} added`, [{ setup: this.#groupOf(people, name) }])?.[0] ?? null;
  }

  /** Looked at as the photographer's pictures usually are. */
  #asUsual(setup: Setup): Setup {
    return { ...setup, intent: { ...setup.intent, viewing: this.#parts.settings.now.viewing } };
  }

  #groupOf(people: readonly JobPerson[], name: string): Setup {
    const { newId, open } = this.#parts;
    const there = people.map(({ id, name: called, ...traits }) => newPerson(id, called, traits));
    return this.#asUsual(fitted(groupOf(there, newId(), name), open.offered));
  }

  /** Setups as a list from elsewhere says: people and places by their names, who and what is new is made. */
  addShots(shots: readonly ListedShot[]): number {
    const { open, newId, store, messages } = this.#parts;
    const people = new Map(open.people.map((person) => [person.name.toLocaleLowerCase(), person]));
    const unknown = [...open.people.map((person) => person.name)];
    const named = (name: string): JobPerson => {
      const key = name.toLocaleLowerCase();
      const known = people.get(key) ?? traitsOf(newPerson(newId(), name));
      people.set(key, known);
      return known;
    };
    const unnamed = (): JobPerson => {
      const name = numbered(beingNames.adult, unknown);
      unknown.push(name);
      return traitsOf(newPerson(newId(), name));
    };
    const label = `${shots.length} ${shots.length === 1 ? 'setup' : 'setups'} from a list`;
    const added = this.#insert(
      label,
      shots.map(({ name, people: names, count, place, notes, schedule }) => {
        const there = names.length > 0 ? [...new Set(names)].map(named) : Array.from({ length: count }, unnamed);
        return { setup: { ...this.#groupOf(there, name), notes, schedule }, placeName: place };
      })
    );
    if (!added) return 0;
    const { lastDone } = store.history;
    messages.done(`${label}.`, lastDone?.id ?? null);
    return added.length;
  }

  /**
   * Puts new setups last, as one step: each at the place of that name, which is made where there is none, else at that of the
   * last setup. What a new setup says nothing about is as the place. Null, with a message, when there is no room.
   */
  #insert(
    label: string,
    news: readonly { readonly setup: Setup; readonly placeName?: string }[]
  ): readonly string[] | null {
    const { store, open, newId } = this.#parts;
    const { id: owner, rows } = open;
    if (owner === null || this.#full(news.length)) return null;
    const last = rows[rows.length - 1];
    const places = [...open.places];
    const lastPlace = places.find((item) => item.id === open.stored(last?.id ?? '')?.value.placeId);
    const names = rows.map((row) => row.setup.name);
    const ids: string[] = [];
    const result = store.edit(label, (draft) => {
      news.forEach(({ setup, placeName = '' }, index) => {
        const name = freeName(setup.name, names);
        names.push(name);
        const key = placeName.toLocaleLowerCase();
        const place = key === '' ? lastPlace : places.find((item) => item.name.toLocaleLowerCase() === key);
        const made = asPartOfJob({ ...setup, name }, place ?? { id: newId(), name: placeName || 'Place' });
        const [stored] = made.setups;
        const own = place ? { ...stored.own, scenery: null, room: null } : stored.own;
        for (const item of made.places) {
          places.push(item);
          draft.put('places', newRow(item.id, item, { owner, position: places.length }));
        }
        for (const person of made.people) {
          if (!draft.row('people', person.id))
            draft.put('people', newRow(person.id, person, { owner, position: open.people.length }));
        }
        ids.push(stored.id);
        const position = (last?.position ?? -1) + 1 + index;
        draft.put('setups', newRow(stored.id, { ...stored, own }, { owner, position }));
      });
    });
    return result.ok ? ids : null;
  }

  /** Removes several together. */
  removeAll(rows: readonly SetupRow[]): void {
    const { store, messages } = this.#parts;
    const what = rows.length === 1 ? (rows[0]?.setup.name ?? 'Setup') : `${rows.length} setups`;
    const result = store.edit(`${what} removed`, (draft) => rows.forEach((row) => draft.remove('setups', row.id)));
    if (result.ok) messages.done(`${what} removed.`, result.step);
  }

  remove(row: SetupRow): void {
    this.removeAll([row]);
  }
}

/** With kit that is there. */
function fitted(setup: Setup, offered: Kit): Setup {
  return { ...setup, camera: withKitOnOffer(setup.camera, offered) };
}

/** "Person 1" with the first number that is free; other names as they are. */
function nextName(name: string, taken: readonly string[]): string {
  const numbered = /^(.+) \d+$/.exec(name);
  if (!numbered || !taken.includes(name)) return name;
  for (let n = 1; ; n++) if (!taken.includes(`${numbered[1] ?? ''} ${n}`)) return `${numbered[1] ?? ''} ${n}`;
}
