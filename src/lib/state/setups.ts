/** What is done with setups as a whole. */
import { copiedParts } from '$core/job/copy';
import { asPartOfJob, renamePeople } from '$core/job/normalise';
import { withKitOnOffer } from '$core/setup/chooseKit';
import type { Kit } from '$core/kit/schema';
import type { Setup } from '$core/setup/schema';
import { withSchools } from '$core/technique/schools';
import { limits } from '$core/schema/values';
import { notTaken } from '$core/setup/schedule';
import { setupFrom, type TemplateChoices } from '$core/setup/templates';
import { freeName, newRow, readJobParts } from '$lib/data';
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
  async copy(row: SetupRow, toJobId: string): Promise<void> {
    const { database, store, open, messages, newId } = this.#parts;
    const stored = open.stored(row.id);
    const target = store.table('jobs').get(toJobId);
    if (!stored || !target) return;
    try {
      const there = await readJobParts(database, toJobId);
      if (there.setups.length >= limits.maxSetups) {
        messages.problem(`${target.value.name} already has ${limits.maxSetups} setups.`);
        return;
      }
      const parts = copiedParts(stored.value, { people: open.people, places: open.places }, there, newId);
      const added = (table: string, value: { readonly id: string }, position: number) => ({
        table,
        id: value.id,
        before: null,
        after: newRow(value.id, value, { owner: toJobId, position })
      });
      const step = await store.apply(`${stored.value.name} copied`, [
        ...parts.people.map((person, index) => added('people', person, there.people.length + index)),
        ...parts.places.map((place, index) => added('places', place, there.places.length + index)),
        ...parts.setups.map((setup) => added('setups', setup, this.#parts.now()))
      ]);
      messages.done(`${stored.value.name} copied to ${target.value.name}.`, step);
    } catch (error) {
      messages.problem(`It could not be copied: ${reasonOf(error)}`);
    }
  }

  remove(row: SetupRow): void {
    const { store, messages } = this.#parts;
    const result = store.edit(`${row.setup.name} removed`, (draft) => draft.remove('setups', row.id));
    if (result.ok) messages.done(`${row.setup.name} removed.`, result.step);
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
