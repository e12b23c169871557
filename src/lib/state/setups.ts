/** What is done with setups as a whole. */
import type { Shot } from '$core/formats/shotList';
import { copiedParts } from '$core/job/copy';
import { traitsOf } from '$core/job/resolve';
import { beingNames, numbered } from '$core/setup/names';
import { asPartOfJob, renamePeople } from '$core/job/normalise';
import { withKitOnOffer } from '$core/setup/chooseKit';
import type { Kit } from '$core/kit/schema';
import type { Setup } from '$core/setup/schema';
import { withSchools } from '$core/technique/schools';
import { limits } from '$core/schema/values';
import { notTaken } from '$core/setup/schedule';
import { newPerson } from '$core/setup/defaults';
import { groupOf, setupFrom, type TemplateChoices } from '$core/setup/templates';
import type { JobPerson } from '$core/job/schema';
import { freeName, newRow, readJobParts, type Change } from '$lib/data';
import type { SetupRow } from './openJob.svelte';
import { reasonOf, type Parts } from './parts';

export class Setups {
  readonly #parts: Parts;

  constructor(parts: Parts) {
    this.#parts = parts;
  }

  /** A new setup in the open job, at the place of the last one. Null, with a message, when there are enough. */
  add(choices: TemplateChoices): string | null {
    const { store, open, newId, settings } = this.#parts;
    const jobId = open.id;
    if (jobId === null || this.#full()) return null;
    const last = open.rows[open.rows.length - 1];
    const place = store.table('places').get(last ? (open.stored(last.id)?.value.placeId ?? '') : '')?.value;
    const taken = open.people.map((person) => person.name);
    const fitting = fitted(setupFrom(choices, newId()), open.offered);
    const base = withSchools(open.input(fitting), settings.now.schools);
    const name = freeName(
      base.name,
      open.rows.map((row) => row.setup.name)
    );
    const ids = new Map(base.people.map((person) => [person.id, newId()]));
    const setup = renamePeople({ ...base, name }, (id) => ids.get(id) ?? id);
    const people = setup.people.map((person) => {
      const free = nextName(person.name, taken);
      taken.push(free);
      return { ...person, name: free };
    });
    const made = asPartOfJob({ ...setup, people }, place ?? { id: newId(), name: 'Place' });
    const [stored] = made.setups;
    // What the template says nothing about is as the place.
    const own = place ? { ...stored.own, scenery: null, room: null } : stored.own;
    store.edit(`${name} added`, (draft) => {
      const owner = jobId;
      for (const person of made.people)
        draft.put('people', newRow(person.id, person, { owner, position: open.people.length }));
      for (const item of made.places)
        draft.put('places', newRow(item.id, item, { owner, position: open.places.length }));
      draft.put('setups', newRow(stored.id, { ...stored, own }, { owner, position: (last?.position ?? -1) + 1 }));
    });
    return stored.id;
  }

  #full(): boolean {
    if (this.#parts.open.rows.length < limits.maxSetups) return false;
    this.#parts.messages.problem(`A job holds at most ${limits.maxSetups} setups. Start another job for more.`);
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
      draft.put(
        'setups',
        newRow(id, { ...stored.value, id, name, ticked: [], taken: notTaken }, { owner: row.jobId, position })
      )
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
      const added = (table: string, value: { readonly id: string }, position: number): Change => ({
        table,
        id: value.id,
        before: null,
        after: newRow(value.id, value, { owner: toJobId, position })
      });
      const at = now();
      const changes = stored.flatMap((row, index): Change[] => {
        const { value } = row;
        const parts = copiedParts(value, { people: open.people, places: open.places }, cast, newId);
        const news = [
          ...parts.people.map((person, place) => added('people', person, cast.people.length + place)),
          ...parts.places.map((place, offset) => added('places', place, cast.places.length + offset)),
          // What is moved keeps what was done.
          ...parts.setups.map((setup) =>
            added(
              'setups',
              how === 'moved' ? { ...setup, ticked: value.ticked, taken: value.taken } : setup,
              at + index
            )
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
      messages.problem(`It could not be ${how}: ${reasonOf(error)}`);
    }
  }

  /** A new group picture of some of the job's people. Null, with a message, when there is no room. */
  addGroup(people: readonly JobPerson[]): string | null {
    const name = people.length === 1 ? (people[0]?.name ?? '') : `Group of ${people.length}`;
    if (people.length === 0) return null;
    return this.#addPictures(`${name} added`, [{ name, people }])?.[0] ?? null;
  }

  /** Setups as a list from elsewhere says: people and places by their names, who and what is new is made. */
  addShots(shots: readonly Shot[]): number {
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
    const added = this.#addPictures(
      label,
      shots.map(({ name, people: names, count, place, notes, schedule }) => ({
        name,
        people: names.length > 0 ? [...new Set(names)].map(named) : Array.from({ length: count }, unnamed),
        place,
        more: { notes, schedule }
      }))
    );
    if (!added) return 0;
    const { lastDone } = store.history;
    messages.done(`${label}.`, lastDone?.id ?? null);
    return added.length;
  }

  /** Adds pictures of these people as one step; at the place of that name, else at that of the last setup. */
  #addPictures(
    label: string,
    pictures: readonly {
      readonly name: string;
      readonly people: readonly JobPerson[];
      readonly place?: string;
      readonly more?: Pick<Setup, 'notes' | 'schedule'>;
    }[]
  ): string[] | null {
    const { store, open, newId, messages } = this.#parts;
    const { id: jobId, rows } = open;
    if (jobId === null) return null;
    if (rows.length + pictures.length > limits.maxSetups) {
      messages.problem(`A job holds at most ${limits.maxSetups} setups; this one has ${rows.length}.`);
      return null;
    }
    const last = rows[rows.length - 1];
    const places = [...open.places];
    const lastPlace = places.find((item) => item.id === open.stored(last?.id ?? '')?.value.placeId);
    const taken = rows.map((row) => row.setup.name);
    const ids: string[] = [];
    const result = store.edit(label, (draft) => {
      pictures.forEach(({ name: wanted, people, place: placeName = '', more }, index) => {
        const name = freeName(wanted, taken);
        taken.push(name);
        const id = newId();
        ids.push(id);
        const posed = groupOf(
          people.map(({ id: who, name: called, ...traits }) => newPerson(who, called, traits)),
          id,
          name
        );
        const setup = { ...fitted(posed, open.offered), ...more };
        const key = placeName.toLocaleLowerCase();
        const place = key === '' ? lastPlace : places.find((item) => item.name.toLocaleLowerCase() === key);
        const made = asPartOfJob(setup, place ?? { id: newId(), name: placeName || 'Place' });
        const [stored] = made.setups;
        const own = place ? { ...stored.own, scenery: null, room: null } : stored.own;
        for (const item of made.places) {
          places.push(item);
          draft.put('places', newRow(item.id, item, { owner: jobId, position: places.length }));
        }
        for (const person of people) {
          if (!draft.row('people', person.id))
            draft.put('people', newRow(person.id, person, { owner: jobId, position: open.people.length + index }));
        }
        const position = (last?.position ?? -1) + 1 + index;
        draft.put('setups', newRow(id, { ...stored, own }, { owner: jobId, position }));
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

  /** Moves a setup one place up (−1) or down (+1) in its job. */
  move(row: SetupRow, by: -1 | 1): void {
    const { store, open } = this.#parts;
    const { rows } = open;
    const index = rows.findIndex((item) => item.id === row.id);
    const other = rows[index + by];
    const stored = open.stored(row.id);
    if (!other || !stored) return;
    const beyond = rows[index + 2 * by];
    const position = beyond ? (other.position + beyond.position) / 2 : other.position + by;
    store.edit(`${row.setup.name} moved`, (draft) => draft.put('setups', { ...stored, position }));
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
