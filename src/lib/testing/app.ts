/** An application with a store of its own, for unit tests: a database in memory, and enough of local storage. */
import 'fake-indexeddb/auto';
import { expect, vi } from 'vitest';
import { openDatabase, type FocalisDatabase } from '$lib/data';
import { App } from '$lib/state/app.svelte';

/** Enough of local storage for the journal. */
export class MemoryStorage {
  readonly #items = new Map<string, string>();
  get length() {
    return this.#items.size;
  }
  key = (index: number) => [...this.#items.keys()][index] ?? null;
  getItem = (key: string) => this.#items.get(key) ?? null;
  setItem = (key: string, value: string) => void this.#items.set(key, value);
  removeItem = (key: string) => void this.#items.delete(key);
}

/** Waits for a state, however busy the machine. */
export const until = (check: () => unknown) => vi.waitFor(check, { timeout: 20_000, interval: 5 });
export const ready = (app: App) => until(() => expect(app.status).toBe('ready'));

let count = 0;

export interface OpenApp {
  readonly app: App;
  readonly database: FocalisDatabase;
  /** Puts everything away again. */
  readonly close: () => Promise<void>;
}

export async function openApp(): Promise<OpenApp> {
  vi.stubGlobal('localStorage', new MemoryStorage());
  const database = openDatabase(`test-${++count}-${Math.random()}`);
  const app = new App(database);
  const stop = app.start();
  await ready(app);
  const close = async () => {
    stop();
    await app.flush();
    await database.delete();
    vi.unstubAllGlobals();
  };
  return { app, database, close };
}
