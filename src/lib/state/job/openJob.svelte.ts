/** The job on the screen: its setups resolved with its people and places, and edits of them taken apart again. */
import { produce } from 'immer';
import type { PlanInput } from '$core/call/planInput';
import { resolveSetup, splitEdit, type Cast } from '$core/job/resolve';
import { unnamed } from '$core/setup/names';
import type { Job, JobPerson, JobPlace, JobSetup } from '$core/job/schema';
import { inBag, type Bag } from '$core/kit/bags';
import { mergedKit } from '$core/kit/builtInKit';
import { kitUsed } from '$core/kit/find';
import type { Kit } from '$core/kit/schema';
import { share } from '$core/plain/share';
import { usedKitOf } from '$core/setup/usedKit';
import type { Setup } from '$core/setup/schema';
import { newRow, type EditOptions, type EditResult, type FocalisStore, type Row } from '$lib/data';
import { Plans, type PlannedSetup } from './plans.svelte';
import type { Settings } from './settings.svelte';

/** A setup of the open job, as it is planned. */
export interface SetupRow {
  readonly id: string;
  readonly jobId: string;
  readonly position: number;
  readonly setup: Setup;
}

interface Known {
  readonly from: readonly unknown[];
  readonly row: SetupRow;
}

export class OpenJob {
  readonly #store: FocalisStore;
  readonly #settings: Settings;
  readonly plans = new Plans();
  #known: ReadonlyMap<string, Known> = new Map();
  readonly kit: Kit = $derived.by(() => {
    const rows = <T>(list: readonly Row<T>[]) => list.map((row) => row.value);
    return mergedKit({
      bodies: rows(this.#store.table('bodies').list),
      lenses: rows(this.#store.table('lenses').list),
      adapters: rows(this.#store.table('adapters').list)
    });
  });
  /** The bag this job is taken with. */
  readonly bag: Bag | undefined = $derived.by(() => this.#store.table('bags').get(this.job?.bagId ?? '')?.value);
  /** All of it, without what came with Focalis where that is not wanted. */
  readonly shown: Kit = $derived.by(() => {
    const { kit } = this;
    if (this.#settings.now.builtInKit) return kit;
    const own = (table: keyof Kit) => (item: { readonly id: string }) =>
      this.#store.table(table).get(item.id) !== undefined;
    return {
      bodies: kit.bodies.filter(own('bodies')),
      lenses: kit.lenses.filter(own('lenses')),
      adapters: kit.adapters.filter(own('adapters'))
    };
  });
  /** What there is to choose from: nothing retired, only what is in the bag. */
  readonly offered: Kit = $derived.by(() => {
    const { shown, bag } = this;
    const inUse = (item: { readonly retired: boolean }) => !item.retired;
    const all = {
      bodies: shown.bodies.filter(inUse),
      lenses: shown.lenses.filter(inUse),
      adapters: shown.adapters.filter(inUse)
    };
    return bag ? inBag(all, bag) : all;
  });
  readonly rows: readonly SetupRow[] = $derived.by(() => this.#resolved());
  readonly #byId: ReadonlyMap<string, SetupRow> = $derived(new Map(this.rows.map((row) => [row.id, row])));

  constructor(store: FocalisStore, settings: Settings) {
    this.#store = store;
    this.#settings = settings;
  }

  get id(): string | null {
    return this.#store.atHand.owner;
  }
  /** The job's row; undefined once it has been erased. */
  get jobRow(): Row<Job> | undefined {
    return this.#store.table('jobs').get(this.id ?? '');
  }
  /** The job's row as it was before another tab erased it; null while it is there. */
  get erasedRow(): Row<Job> | null {
    return this.#store.atHand.erasedOwner as Row<Job> | null;
  }
  get job(): Job | undefined {
    return (this.jobRow ?? this.erasedRow)?.value;
  }
  get people(): readonly JobPerson[] {
    return this.#store.table('people').list.map((row) => row.value);
  }
  get places(): readonly JobPlace[] {
    return this.#store.table('places').list.map((row) => row.value);
  }

  row(id: string): SetupRow | undefined {
    return this.#byId.get(id);
  }

  /** What is stored of a setup. */
  stored(id: string): Row<JobSetup> | undefined {
    return this.#store.table('setups').get(id);
  }

  get #cast(): Cast {
    return {
      person: (id) => this.#store.table('people').get(id)?.value,
      place: (id) => this.#store.table('places').get(id)?.value
    };
  }

  /** Every setup resolved; one that rests on nothing new stays the very same. */
  #resolved(): readonly SetupRow[] {
    const cast = this.#cast;
    const known = new Map<string, Known>();
    for (const row of this.#store.table('setups').list) {
      const from = [
        row.value,
        row.position,
        cast.place(row.value.placeId),
        ...row.value.people.map((standing) => cast.person(standing.id))
      ];
      const before = this.#known.get(row.id);
      const unchanged =
        before && from.length === before.from.length && from.every((part, i) => part === before.from[i]);
      const setup = unchanged ? before.row.setup : share(before?.row.setup, resolveSetup(row.value, cast));
      const whole = { id: row.id, jobId: row.owner ?? '', position: row.position, setup };
      known.set(row.id, unchanged ? before : { from, row: whole });
    }
    this.#known = known;
    return [...known.values()].map((item) => item.row);
  }

  #kits = new Map<string, { readonly offered: Kit; readonly more: readonly unknown[]; readonly kit: Kit }>();

  /** What is on offer, with what the setup holds that no longer is. The same for setups that hold the same. */
  #kitFor(setup: Setup): Kit {
    const { offered, kit } = this;
    const used = kitUsed(kit, usedKitOf(setup));
    const missing = <T>(items: readonly T[], there: readonly T[]) => items.filter((item) => !there.includes(item));
    const bodies = missing(used.bodies, offered.bodies);
    const lenses = missing(used.lenses, offered.lenses);
    const adapters = missing(used.adapters, offered.adapters);
    const more = [...bodies, ...lenses, ...adapters];
    if (more.length === 0) return offered;
    const key = more.map((item) => item.id).join(' ');
    const known = this.#kits.get(key);
    if (known?.offered === offered && more.every((item, index) => item === known.more[index])) return known.kit;
    const whole = {
      bodies: [...offered.bodies, ...bodies],
      lenses: [...offered.lenses, ...lenses],
      adapters: [...offered.adapters, ...adapters]
    };
    this.#kits.set(key, { offered, more, kit: whole });
    return whole;
  }

  /** What a plan of a setup starts from. */
  input(setup: Setup): PlanInput {
    const { job } = this;
    const kit = this.#kitFor(setup);
    return { setup, kit, stopStep: job?.stopStep ?? 'third', habits: job?.habits ?? this.#settings.now.habits };
  }

  /** A setup with its plan and the kit it holds. */
  planned(setup: Setup): PlannedSetup {
    return this.plans.of(this.input(setup));
  }

  /** Changes a setup, with the people and the place it refers to. */
  edit(id: string, label: string, recipe: (draft: Setup) => void, options: EditOptions = {}): EditResult {
    if (!options.hold) this.#store.keepHeld();
    const row = this.row(id);
    const stored = this.stored(id);
    if (!row || !stored) return { ok: false, field: '', reason: 'It is no longer there.' };
    const after = produce(row.setup, recipe);
    if (after === row.setup) return { ok: true, step: null };
    const split = splitEdit(stored.value, row.setup, after, this.#cast.place(stored.value.placeId));
    return this.#store.edit(
      label,
      (draft) => {
        draft.put('setups', { ...stored, value: share(stored.value, split.setup) });
        for (const person of split.people) {
          const there = draft.row('people', person.id);
          if (there) draft.put('people', { ...there, value: share(there.value, person) });
          else draft.put('people', newRow(person.id, person, { owner: row.jobId, position: this.people.length }));
        }
        for (const person of row.setup.people) {
          if (!after.people.some((item) => item.id === person.id) && this.#onlyHere(person, id))
            draft.remove('people', person.id);
        }
      },
      options
    );
  }

  /** Somebody without a name of their own who stands in no other picture. */
  #onlyHere({ id, name }: { readonly id: string; readonly name: string }, setupId: string): boolean {
    const elsewhere = this.#store
      .table('setups')
      .list.some((row) => row.id !== setupId && row.value.people.some((standing) => standing.id === id));
    return unnamed.test(name) && !elsewhere;
  }
}
