/** What has been typed into a field and not yet left: kept beside the value that holds, through reload, Back and a crash. */
import type { SafeStorage } from './storage';

const prefix = 'focalis.draft.';

/** A draft nobody has come back to for so long goes. */
const keptMs = 30 * 24 * 3600 * 1000;

export class Drafts {
  readonly #storage: SafeStorage;
  readonly #now: () => number;
  /** Also where storage is full or barred, while the page lives. */
  readonly #typed = new Map<string, string>();

  constructor(storage: SafeStorage, now: () => number) {
    this.#storage = storage;
    this.#now = now;
    for (const key of storage.keys(prefix)) {
      const [at, ...text] = (storage.get(key) ?? '').split('|');
      if (now() - Number(at) < keptMs) this.#typed.set(key, text.join('|'));
      else storage.remove(key);
    }
  }

  get(field: string): string | null {
    return this.#typed.get(prefix + field) ?? null;
  }

  keep(field: string, text: string): void {
    this.#typed.set(prefix + field, text);
    this.#storage.set(prefix + field, `${this.#now()}|${text}`);
  }

  drop(field: string): void {
    if (this.#typed.delete(prefix + field)) this.#storage.remove(prefix + field);
  }
}
