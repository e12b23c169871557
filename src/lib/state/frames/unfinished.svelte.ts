/** Imports that a closed or crashed page left undone: their files' names are kept, synchronously, until each has come or was refused. */
import { z } from 'zod';
import type { SafeStorage } from '$lib/data';

const prefix = 'focalis.importing.';
const lockPrefix = 'focalis-importing-';

const schema = z.strictObject({ owner: z.string(), names: z.array(z.string()).max(100_000) });
type Listed = z.infer<typeof schema>;

/** Which pages are importing now; without locks, as over plain http, none is known. */
async function importingPages(): Promise<ReadonlySet<string>> {
  const { held = [] } = (await globalThis.navigator?.locks?.query()) ?? {};
  return new Set(held.flatMap(({ name }) => (name?.startsWith(lockPrefix) ? [name.slice(lockPrefix.length)] : [])));
}

export class UnfinishedImports {
  readonly #storage: SafeStorage;
  readonly #pageId: string;
  #own: Listed | null = null;
  #release: (() => void) | null = null;
  /** Names of files of the open job that other pages were to bring in and did not end with; some may be there. */
  listed = $state.raw<readonly string[]>([]);

  constructor(storage: SafeStorage, pageId: string) {
    this.#storage = storage;
    this.#pageId = pageId;
  }

  /** These files are to come. */
  begin(owner: string, names: readonly string[]): void {
    const before = this.#own?.owner === owner ? this.#own.names : [];
    this.#own = { owner, names: [...before, ...names] };
    this.#storage.set(prefix + this.#pageId, JSON.stringify(this.#own));
    // Held as long as this page lives and imports: others know by it that nothing is lost.
    if (!this.#release)
      void globalThis.navigator?.locks?.request(
        lockPrefix + this.#pageId,
        () => new Promise<void>((resolve) => (this.#release = resolve))
      );
  }

  /** All have come, or somebody stopped it. */
  end(): void {
    this.#own = null;
    this.#storage.remove(prefix + this.#pageId);
    this.#release?.();
    this.#release = null;
  }

  /** Looks for what other pages left undone of a job; where all of it is there, it is forgotten. */
  async look(owner: string, there: ReadonlySet<string>): Promise<void> {
    const importing = await importingPages();
    const open: string[] = [];
    for (const key of this.#storage.keys(prefix)) {
      const pageId = key.slice(prefix.length);
      if (pageId === this.#pageId || importing.has(pageId)) continue;
      const listed = parsed(this.#storage.get(key));
      if (listed?.owner !== owner) continue;
      if (listed.names.every((name) => there.has(name))) this.#storage.remove(key);
      else open.push(...listed.names);
    }
    this.listed = [...new Set(open)];
  }

  /** Nobody wants them any more. */
  forget(owner: string): void {
    for (const key of this.#storage.keys(prefix))
      if (key !== prefix + this.#pageId && parsed(this.#storage.get(key))?.owner === owner) this.#storage.remove(key);
    this.listed = [];
  }
}

function parsed(text: string | null): Listed | null {
  try {
    return schema.parse(JSON.parse(text ?? 'null'));
  } catch {
    return null;
  }
}
