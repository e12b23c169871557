/** The rows at hand: of all tables that stand alone, and of one owner. Kept in step with what other tabs store. */
import type Dexie from 'dexie';
import { merge } from '$core/plain/merge';
import type { Committed } from './commit';
import { MemoryTable } from './memory.svelte';
import type { RowKey } from './peers';
import { readTableRows, sort } from './read';
import type { Change, Damaged, Descriptor, Descriptors, Row, TableName, Values } from './rows';

type Tables<T extends Values> = { readonly [N in TableName<T>]: MemoryTable<T[N]> };

export class AtHand<T extends Values> {
  /** Rows that could not be read. */
  damaged = $state.raw<readonly Damaged[]>([]);
  /** Whose rows are at hand. */
  owner = $state<string | null>(null);
  /** That owner's own row as it was, once it has been erased elsewhere: everything of it stays at hand. */
  erasedOwner = $state.raw<Row | null>(null);
  readonly #database: Dexie;
  readonly #descriptors: Descriptors<T>;
  readonly #tables: Tables<T>;
  /** What is shown and not yet stored. */
  readonly #unstored: () => readonly Change[];

  constructor(database: Dexie, descriptors: Descriptors<T>, unstored: () => readonly Change[]) {
    this.#database = database;
    this.#descriptors = descriptors;
    this.#unstored = unstored;
    const names = Object.keys(descriptors) as TableName<T>[];
    this.#tables = Object.fromEntries(names.map((name) => [name, new MemoryTable()])) as Tables<T>;
  }

  #pending(table: string, id: string): Change | undefined {
    return this.#unstored().find((change) => change.table === table && change.id === id);
  }

  table<N extends TableName<T>>(name: N): MemoryTable<T[N]> {
    return this.#tables[name];
  }

  descriptor(name: string): Descriptor<unknown> {
    return this.#descriptors[name as TableName<T>] as Descriptor<unknown>;
  }

  memory(name: string): MemoryTable<unknown> {
    return this.#tables[name as TableName<T>] as MemoryTable<unknown>;
  }

  #names(owned: boolean): readonly string[] {
    return Object.keys(this.#tables).filter((name) => (this.descriptor(name).ownedBy !== null) === owned);
  }

  /** Reads what stands alone. @throws what the database throws */
  load(): Promise<void> {
    return this.#read(this.#names(false), null);
  }

  /** Has the rows of an owner at hand, instead of those of another. */
  async open(owner: string | null): Promise<void> {
    if (owner === null) {
      for (const name of this.#names(true)) this.memory(name).fill([]);
    } else await this.#read(this.#names(true), owner);
    this.owner = owner;
    this.erasedOwner = null;
  }

  async #read(names: readonly string[], owner: string | null): Promise<void> {
    const read = await Promise.all(
      names.map((name) => readTableRows(this.#database, name, this.descriptor(name), owner))
    );
    names.forEach((name, index) => {
      const rows = read[index]?.rows ?? [];
      // Rows that are new here and wait to be stored.
      const added = this.#unstored().flatMap(({ table, after }) =>
        table === name && after && (owner === null || after.owner === owner) ? [after] : []
      );
      const isStored = (row: Row) => rows.some((item) => item.id === row.id);
      this.memory(name).fill([...rows.map((row) => this.#ours(name, row)), ...added.filter((row) => !isStored(row))]);
    });
    const damaged = read.flatMap((item) => item.damaged);
    this.damaged = [...this.damaged.filter((item) => !names.includes(item.table)), ...damaged];
  }

  /** A stored row with what is typed here and not yet stored. */
  #ours(table: string, row: Row): Row {
    const pending = this.#pending(table, row.id);
    return pending?.after && pending.before ? merge(pending.before, pending.after, row) : row;
  }

  /** Shows rows as they will be stored. */
  show(changes: readonly Change[]): void {
    for (const { table, id, after } of changes) {
      if (this.descriptor(table).ownedBy === null || after === null || after.owner === this.owner) {
        this.memory(table).set([[id, after]]);
      }
    }
  }

  /** Rows as they are stored now. */
  receive(stored: Committed['stored']): void {
    const alone = stored.filter(({ table }) => this.descriptor(table).ownedBy === null);
    const owned = stored.filter(({ table }) => this.descriptor(table).ownedBy !== null);
    for (const { table, id, row } of [...alone, ...owned]) {
      const standsAlone = this.descriptor(table).ownedBy === null;
      if (row !== null) {
        if (id === this.owner && standsAlone) this.erasedOwner = null;
        if (standsAlone || row.owner === this.owner) this.memory(table).set([[id, this.#ours(table, row)]]);
        continue;
      }
      if (id === this.owner && standsAlone) this.erasedOwner = this.memory(table).get(id) ?? this.erasedOwner;
      // What is typed here outlives a removal elsewhere; so does everything of an owner that was erased while it is open.
      if (!this.#pending(table, id) && (standsAlone || this.erasedOwner === null)) this.memory(table).set([[id, null]]);
    }
  }

  /** Every row of the owner at hand, as changes that bring it into a store where it is not. */
  get ownedRows(): readonly Change[] {
    return this.#names(true).flatMap((table) =>
      this.memory(table).list.map((after): Change => ({ table, id: after.id, before: null, after }))
    );
  }

  get standingAlone(): readonly string[] {
    return this.#names(false);
  }

  /** What is at hand of a store that was emptied, as additions; and the owners of whose rows nothing is. */
  get remains(): {
    readonly changes: readonly Change[];
    readonly gone: readonly { readonly table: string; readonly row: Row }[];
  } {
    const owning = new Set(this.#names(true).map((name) => this.descriptor(name).ownedBy));
    const rows = this.standingAlone.flatMap((table) => this.memory(table).list.map((row) => ({ table, row })));
    const isGone = ({ table, row }: (typeof rows)[number]) => owning.has(table) && row.id !== this.owner;
    const alone = rows
      .filter((item) => !isGone(item))
      .map(({ table, row }): Change => ({ table, id: row.id, before: null, after: row }));
    return { changes: [...alone, ...this.ownedRows], gone: rows.filter(isGone) };
  }

  /** Reads again what another tab has stored. */
  async refresh(keys: readonly RowKey[]): Promise<void> {
    const known = keys.filter(({ table }) => table in this.#tables);
    for (const name of new Set(known.map((key) => key.table))) {
      const ids = known.filter((key) => key.table === name).map((key) => key.id);
      const raws = await this.#database.table<unknown, string>(name).bulkGet(ids);
      const { rows, damaged } = sort(
        name,
        this.descriptor(name),
        raws.filter((raw) => raw !== undefined)
      );
      const readable = ids.filter((id) => !damaged.some((item) => item.id === id));
      this.receive(readable.map((id) => ({ table: name, id, row: rows.find((row) => row.id === id) ?? null })));
    }
  }

  /** Everything at hand, read again: another tab may have stored something nobody told of. */
  async refreshAll(): Promise<void> {
    await this.load();
    if (this.owner !== null && this.erasedOwner === null) await this.open(this.owner);
  }
}
