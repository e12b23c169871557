/** Pictures of a sheet, read one after another; each keeps what became of it. */
import { SvelteMap } from 'svelte/reactivity';
import type { DrillId } from '$core/drills/kinds';
import { sha256Hex } from '../../photos/hash';
import type { CallOptions } from '../../workers/client';

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

  /** Reads them one after another; what came before stays. The very same bytes are not read again. */
  async add(
    files: readonly Source[],
    read: (file: Blob, options: CallOptions) => Promise<T>,
    what: string
  ): Promise<void> {
    if (this.busy) return;
    const stop = new AbortController();
    this.#stop = stop;
    this.problem = '';
    let again = 0;
    try {
      for (const [index, { name, file }] of files.entries()) {
        this.progress = { done: index, of: files.length, what };
        const blob = await file({ signal: stop.signal });
        const id = await sha256Hex(new Uint8Array(await blob.arrayBuffer()));
        if (this.items.some((item) => item.id === id)) {
          again++;
          continue;
        }
        const done = await read(blob, { signal: stop.signal });
        if (stop.signal.aborted) return;
        this.items = [...this.items, { id, name, file: blob, read: done }];
      }
    } catch (error) {
      if (!stop.signal.aborted) this.problem = error instanceof Error ? error.message : String(error);
    } finally {
      if (again > 0 && this.problem === '')
        this.problem = `${again === 1 ? 'One picture was' : `${again} pictures were`} here already.`;
      this.progress = null;
      this.#stop = null;
    }
  }

  /** Reads some again, each in its place. */
  async again(
    ids: readonly string[],
    read: (file: Blob, options: CallOptions, id: string) => Promise<T>
  ): Promise<void> {
    if (this.busy) return;
    const stop = new AbortController();
    this.#stop = stop;
    this.problem = '';
    try {
      for (const [index, id] of ids.entries()) {
        this.progress = { done: index, of: ids.length, what: 'read and measured' };
        const item = this.items.find((one) => one.id === id);
        if (!item) continue;
        const done = await read(item.file, { signal: stop.signal }, id);
        if (stop.signal.aborted) return;
        this.items = this.items.map((one) => (one.id === id ? { ...one, read: done } : one));
      }
    } catch (error) {
      if (!stop.signal.aborted) this.problem = error instanceof Error ? error.message : String(error);
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
