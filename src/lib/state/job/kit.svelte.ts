/** What is done with kit: one's own bodies, lenses, adapters and bags over those that come with Focalis. */
import { refusedWords } from '$core/words/refused';
import type { Draft } from 'immer';
import { produce } from 'immer';
import type { Bag } from '$core/kit/bags';
import { builtInKit } from '$core/kit/builtInKit';
import { maxKitFileBytes, readKitFile, kitFileTooLarge, writeKitFile } from '$core/formats/kitFile';
import type { Adapter, Body, Kit, Lens } from '$core/kit/schema';
import { same } from '$core/plain/merge';
import { freeName, newRow, placeKit, setupsHolding, type FocalisValues, type KitUse, type EditManner } from '$lib/data';
import type { Services } from './services';

interface KitValues {
  readonly bodies: Body;
  readonly lenses: Lens;
  readonly adapters: Adapter;
}
export type KitTable = keyof KitValues;

const tables = ['bodies', 'lenses', 'adapters'] as const;

/** What an item is refused for, in the words of its fields. */
const refusals: Readonly<Record<string, string>> = {
  smallestFNumber: 'The smallest opening cannot be wider than the widest.',
  smallestAtLong: 'The smallest opening at the long end cannot be wider than the widest there.',
  longestMm: 'The longest focal length cannot be under the shortest.',
  isoLimit: 'The highest ISO cannot be under the base ISO.',
  syncS: 'The flash cannot be in time with a shutter shorter than the shortest.',
  'sensor.heightMm': 'The short edge cannot be longer than the long edge.',
  measured: 'The measured stops must each be there once.'
};

export class OwnKit {
  readonly #parts: Services;

  constructor(parts: Services) {
    this.#parts = parts;
  }

  /** Everything there is, own and built in; what is put away too. */
  get all(): Kit {
    return this.#parts.open.kit;
  }
  get bags(): readonly Bag[] {
    return this.#parts.store.table('bags').list.map((row) => row.value);
  }
  /** What the photographer looks at: without what came with Focalis, if it is not wanted. */
  get shown(): Kit {
    return this.#parts.open.shown;
  }

  /** Whether it is the photographer's own, or changed by them. */
  isOwn(table: KitTable, id: string): boolean {
    return this.#parts.store.table(table).get(id) !== undefined;
  }
  /** Whether it came with Focalis, changed or not. */
  isBuiltIn(table: KitTable, id: string): boolean {
    return builtInKit[table].some((item) => item.id === id);
  }
  find<N extends KitTable>(table: N, id: string): KitValues[N] | undefined {
    const items: readonly (Body | Lens | Adapter)[] = this.all[table];
    return items.find((item) => item.id === id) as KitValues[N] | undefined;
  }

  /** Puts an item in; the names of two alike tell them apart. Returns its id. */
  add<N extends KitTable>(table: N, make: (id: string) => KitValues[N]): string {
    const { store, newId, now } = this.#parts;
    const made = make(newId());
    const name = freeName(
      made.name,
      this.all[table].map((item) => item.name)
    );
    store.edit(`${name} added`, (draft) =>
      draft.put(table, newRow(made.id, { ...made, name } as FocalisValues[N], { position: now() }))
    );
    return made.id;
  }

  duplicate(table: KitTable, id: string): string | null {
    const item = this.find(table, id);
    return item ? this.add(table, (copy) => ({ ...item, id: copy, retired: false })) : null;
  }

  /** Changes an item; one that came with Focalis becomes one's own. Returns why that cannot be, or null. */
  change<N extends KitTable>(
    table: N,
    id: string,
    label: string,
    recipe: (draft: Draft<KitValues[N]>) => void,
    how: EditManner = null
  ): string | null {
    const { store, now } = this.#parts;
    const item = this.find(table, id);
    if (!item) return 'It is no longer there.';
    const after = produce(item, recipe);
    const options = typeof how === 'string' ? { gesture: how } : (how ?? {});
    const result = store.edit(
      `${item.name}: ${label}`,
      (draft) => {
        const there = draft.row(table, id);
        const value = after as FocalisValues[N];
        draft.put(table, there ? { ...there, value } : newRow(id, value, { position: now() }));
      },
      options
    );
    return result.ok ? null : (refusals[result.field] ?? result.reason);
  }

  /** The setups that hold an item, in all jobs. */
  async uses(table: KitTable, id: string): Promise<readonly KitUse[]> {
    const { database, store } = this.#parts;
    await store.flush();
    return setupsHolding(database, table, id);
  }

  /** Takes an own item away; one that came with Focalis is then as it came. Setups that hold it ask for another. */
  remove(table: KitTable, id: string): void {
    const { store, messages } = this.#parts;
    const item = this.find(table, id);
    if (!item) return;
    const label = this.isBuiltIn(table, id) ? `${item.name} as it came` : `${item.name} removed`;
    const result = store.edit(label, (draft) => {
      draft.remove(table, id);
      if (this.isBuiltIn(table, id)) return;
      for (const row of store.table('bags').list) {
        const without = outOfBag(row.value, id);
        if (!same(without, row.value)) draft.put('bags', { ...row, value: without });
      }
    });
    if (result.ok) messages.done(`${label}.`, result.step);
  }

  addBag(): string {
    const { store, newId, now } = this.#parts;
    const bag: Bag = {
      id: newId(),
      name: freeName(
        'Bag',
        this.bags.map((item) => item.name)
      ),
      bodies: [],
      lensIds: [],
      adapterIds: []
    };
    store.edit(`${bag.name} added`, (draft) => draft.put('bags', newRow(bag.id, bag, { position: now() })));
    return bag.id;
  }

  changeBag(id: string, label: string, recipe: (draft: Draft<Bag>) => void, how: EditManner = null): string | null {
    const options = typeof how === 'string' ? { gesture: how } : (how ?? {});
    const result = this.#parts.store.edit(
      label,
      (draft) => draft.change('bags', id, (bag) => produce(bag, recipe)),
      options
    );
    return result.ok ? null : result.reason;
  }

  removeBag(id: string): void {
    const { store, messages } = this.#parts;
    const bag = this.bags.find((item) => item.id === id);
    if (!bag) return;
    const result = store.edit(`${bag.name} removed`, (draft) => {
      draft.remove('bags', id);
      for (const row of store.table('jobs').list)
        if (row.value.bagId === id) draft.put('jobs', { ...row, value: { ...row.value, bagId: null } });
    });
    if (result.ok) messages.done(`${bag.name} removed.`, result.step);
  }

  /** Takes several items in as one step: what is there already, whatever it is called, is not taken twice. */
  take(label: string, kit: Kit, bags: readonly Bag[] = []): void {
    const { store, newId, now, messages } = this.#parts;
    const result = store.edit(label, (draft) => {
      const ids = new Map<string, string>();
      for (const table of tables) {
        const placed = placeKit<Body | Lens | Adapter>(kit[table], this.all[table], newId);
        for (const [from, to] of placed.ids) ids.set(from, to);
        for (const item of placed.added)
          draft.put(table, newRow(item.id, item as Body & Lens & Adapter, { position: now() }));
      }
      const as = (id: string) => ids.get(id) ?? id;
      for (const bag of bags) {
        const bodies = bag.bodies.map(({ bodyId, lensId }) => ({
          bodyId: as(bodyId),
          lensId: lensId === null ? null : as(lensId)
        }));
        const value = { ...bag, id: newId(), bodies, lensIds: bag.lensIds.map(as), adapterIds: bag.adapterIds.map(as) };
        const alike = this.bags.some((other) => same({ ...other, id: '' }, { ...value, id: '' }));
        if (!alike) draft.put('bags', newRow(value.id, value, { position: now() }));
      }
    });
    if (result.ok) messages.done(`${label}.`, result.step);
    else messages.problem(`${label}: ${result.reason}`);
  }

  /** Reads a kit file; says why it was refused. */
  async importFile(file: File): Promise<void> {
    const { messages } = this.#parts;
    const read = file.size > maxKitFileBytes ? kitFileTooLarge : readKitFile(await file.text());
    if (read.ok) this.take(`${file.name} imported`, read.file.kit, read.file.bags);
    else
      messages.problem(
        refusedWords(`import ${file.name}`, `${read.field === '' ? '' : `${read.field}: `}${read.reason}`)
      );
  }

  get exportText(): string {
    return writeKitFile({ kit: this.shown, bags: this.bags });
  }
}

/** A bag without an item; a body that loses its lens is without one. */
function outOfBag(bag: Bag, id: string): Bag {
  const bodies = bag.bodies
    .filter((item) => item.bodyId !== id)
    .map((item) => (item.lensId === id ? { ...item, lensId: null } : item));
  const without = (ids: readonly string[]) => ids.filter((item) => item !== id);
  return { ...bag, bodies, lensIds: without(bag.lensIds), adapterIds: without(bag.adapterIds) };
}
