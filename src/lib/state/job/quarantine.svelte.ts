/** What could not be read and was set aside: named here, and to be had as a file. */
import { asidePrefix, type Damaged, type Database, type SafeStorage } from '$lib/data';

interface AsideRow {
  readonly key: string;
  readonly table: string;
  readonly id: string;
  readonly reason: string;
  readonly raw: unknown;
}

export class Quarantine {
  readonly #database: Database;
  readonly #storage: SafeStorage;
  readonly #damaged: () => readonly Damaged[];
  /** Edits of earlier tabs, by where they are kept. */
  journals = $state.raw<readonly string[]>([]);
  /** Rows of an earlier version of the store. */
  #old = $state.raw<readonly AsideRow[]>([]);

  constructor(database: Database, storage: SafeStorage, damaged: () => readonly Damaged[]) {
    this.#database = database;
    this.#storage = storage;
    this.#damaged = damaged;
  }

  async load(): Promise<void> {
    this.#old = await this.#database.table<AsideRow, string>('aside').toArray();
    this.journals = this.#storage.keys(asidePrefix);
  }

  /** What was set aside, each with what it is and, if it still has one, its name. */
  get names(): readonly string[] {
    const named = (noun: string, name: string) => (name === '' ? noun : `${noun} “${name}”`);
    return [
      ...this.#damaged().map(({ noun, name }) => named(noun, name)),
      ...this.#old.map(({ table, raw }) => named(`${table} of an earlier version`, nameIn(raw))),
      ...this.journals.map(() => 'edits typed in an earlier tab')
    ];
  }

  /** All of it as one JSON document. */
  get text(): string {
    const journals = this.journals.map((key) => ({ key, text: this.#storage.get(key) }));
    return `${JSON.stringify({ rows: this.#damaged(), earlier: this.#old, journals }, null, 2)}\n`;
  }
}

function nameIn(raw: unknown): string {
  const found = /"name":"([^"]{1,80})"/.exec(JSON.stringify(raw) ?? '');
  return found?.[1] ?? '';
}
