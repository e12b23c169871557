/** Pictures of a sheet, read in their order; each keeps what became of it. */
import { SvelteMap } from 'svelte/reactivity';
import type { DrillId } from '$core/drills/kinds/ids';
import { sha256Hex } from '../../photos/hash';
import type { CallOptions } from '../../workers/client';
import { benchAtOnce } from '../../workers/clients/bench';

export interface Item<T> {
  /** The hash of its bytes: two cameras call their files alike. */
  readonly id: string;
  readonly name: string;
  /** The file itself, to be read again once what it does not say is typed. */
  readonly file: Blob;
  readonly read: T;
}

/** A picture that is there, or made when its turn comes. */
export interface Source {
  readonly name: string;
  readonly file: (options: CallOptions) => Promise<Blob>;
}

export const sources = (files: readonly File[]): Source[] =>
  files.map((file) => ({ name: file.name, file: () => Promise.resolve(file) }));

export class Series<T> {
  items = $state.raw<readonly Item<T>[]>([]);
  /** How many of how many are read, while some are. */
  progress = $state.raw<{ readonly done: number; readonly of: number; readonly what: string } | null>(null);
  problem = $state('');
  #stop: AbortController | null = null;

  get busy(): boolean {
    return this.progress !== null;
  }

  /** Reads them, two at a time; what came before stays, and they come in their order. The very same bytes are not read again. */
  async add(
    files: readonly Source[],
    read: (file: Blob, options: CallOptions) => Promise<T>,
    what: string
  ): Promise<void> {
    /** Where each belongs among those that come now; what was here already stays before them. */
    // eslint-disable-next-line svelte/prefer-svelte-reactivity -- bookkeeping that no screen reads
    const places = new Map(this.items.map(({ id }) => [id, -1]));
    let again = 0;
    await this.#each(files, what, async ({ name, file }, index, signal) => {
      const blob = await file({ signal });
      const id = await sha256Hex(new Uint8Array(await blob.arrayBuffer()));
      if (places.has(id)) {
        again++;
        return;
      }
      places.set(id, index);
      const done = await read(blob, { signal });
      if (signal.aborted) return;
      const placeOf = (item: Item<T>) => places.get(item.id) ?? -1;
      this.items = [...this.items, { id, name, file: blob, read: done }].sort((a, b) => placeOf(a) - placeOf(b));
    });
    if (again > 0 && this.problem === '')
      this.problem = `${again === 1 ? 'One photo was' : `${again} photos were`} here already.`;
  }

  /** Reads some again, each in its place. */
  again(ids: readonly string[], read: (file: Blob, options: CallOptions, id: string) => Promise<T>): Promise<void> {
    return this.#each(ids, 'read and measured', async (id, _, signal) => {
      const item = this.items.find((one) => one.id === id);
      if (!item) return;
      const done = await read(item.file, { signal }, id);
      if (signal.aborted) return;
      this.items = this.items.map((one) => (one.id === id ? { ...one, read: done } : one));
    });
  }

  /** Does something with each, as many at a time as there are workers; what fails is said, and ends it. */
  async #each<S>(
    all: readonly S[],
    what: string,
    work: (one: S, index: number, signal: AbortSignal) => Promise<void>
  ): Promise<void> {
    if (this.busy || all.length === 0) return;
    const stop = new AbortController();
    this.#stop = stop;
    this.problem = '';
    this.progress = { done: 0, of: all.length, what };
    const queue = [...all.entries()];
    let done = 0;
    const inTurn = async () => {
      for (let next = queue.shift(); next && !stop.signal.aborted; next = queue.shift()) {
        await work(next[1], next[0], stop.signal);
        // Another has failed, or somebody stopped it: what is left says nothing any more.
        if (stop.signal.aborted) return;
        this.progress = { done: ++done, of: all.length, what };
      }
    };
    try {
      await Promise.all(Array.from({ length: benchAtOnce }, inTurn));
    } catch (error) {
      if (!stop.signal.aborted) this.problem = error instanceof Error ? error.message : String(error);
      stop.abort();
    } finally {
      this.progress = null;
      this.#stop = null;
    }
  }

  cancel(): void {
    this.#stop?.abort();
  }
  remove(id: string): void {
    this.items = this.items.filter((item) => item.id !== id);
  }
  clear(): void {
    this.cancel();
    this.items = [];
    this.problem = '';
  }
}

/** What was read stays while one looks elsewhere in Focalis. */
const kept = new SvelteMap<string, Series<unknown>>();

export function seriesOf<T>(
  test: 'focus' | 'stops' | 'field' | 'spots' | DrillId,
  bodyId: string,
  lensId: string
): Series<T> {
  const key = `${test} ${bodyId} ${lensId}`;
  const known = kept.get(key) ?? new Series<unknown>();
  kept.set(key, known);
  return known as Series<T>;
}
