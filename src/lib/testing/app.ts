/** An application with a store of its own, for unit tests: a database in memory, and local storage that can fail. */
import { expect, vi } from 'vitest';
import { readJobFile } from '$core/formats/jobFile';
import { safeStorage, type Database } from '$lib/data';
import { readZip, zipped } from '../../workers/zip';
import { defineDatabase } from '$lib/data/database';
import { App } from '$lib/state/app.svelte';
import { measureOwnEyes } from '$core/frames/ownEyes';
import type { PhotoReader } from '$lib/state/frames/photoReader';

/** Local storage in memory; `full` refuses to take anything more, `barred` everything. */
export class MemoryStorage {
  readonly items = new Map<string, string>();
  full = false;
  barred = false;
  #check() {
    if (this.barred) throw new DOMException('Access is denied.', 'SecurityError');
  }
  get length() {
    this.#check();
    return this.items.size;
  }
  key = (index: number) => [...this.items.keys()][index] ?? null;
  getItem = (key: string) => {
    this.#check();
    return this.items.get(key) ?? null;
  };
  setItem = (key: string, value: string) => {
    this.#check();
    if (this.full) throw new DOMException('Quota exceeded.', 'QuotaExceededError');
    this.items.set(key, value);
  };
  removeItem = (key: string) => {
    this.#check();
    this.items.delete(key);
  };
  clear = () => this.items.clear();
}

/** Waits for a state, however busy the machine. */
export const until = (check: () => unknown) => vi.waitFor(check, { timeout: 20_000, interval: 5 });

let count = 0;

export interface OpenApp {
  readonly app: App;
  readonly database: Database;
  readonly storage: MemoryStorage;
  /** Another tab on the same store. */
  readonly tab: () => Promise<App>;
  /** Puts everything away again. */
  readonly close: () => Promise<void>;
}

/** The demo wedding, open. */
export const weddingId = 'demo-fernhall';

const nothingRead: PhotoReader = {
  atOnce: 1,
  readPhoto: () => Promise.resolve({ ok: false, reason: 'Nothing is read here.' }),
  readPoint: () => Promise.resolve({ kind: 'refused', reason: 'Nothing is read here.' }),
  measureAgain: (frames) => Promise.resolve(measureOwnEyes(frames))
};

/** `fetch`: the network in between; `reading`: what reads pictures. */
export async function openApp({
  reading,
  newId = () => crypto.randomUUID(),
  ...options
}: {
  readonly newId?: () => string;
  readonly fetch?: typeof fetch;
  readonly reading?: Partial<PhotoReader>;
} = {}): Promise<OpenApp> {
  const storage = new MemoryStorage();
  const name = `test-${++count}-${Math.random()}`;
  const opened: { app: App; database: Database }[] = [];
  const start = async () => {
    const safe = safeStorage(() => storage);
    const database = defineDatabase(name, safe);
    const app = new App({
      database,
      storage: safe,
      ...options,
      reading: () => Promise.resolve({ ...nothingRead, ...reading }),
      newId,
      random: () => 0.5,
      now: () => Date.now(),
      readFile: async (file, onProgress) => readJobFile(await file.text(), onProgress),
      packing: { pack: zipped, unpack: readZip }
    });
    opened.push({ app, database });
    await app.start();
    expect(app.problem).toBeNull();
    await app.openJob(weddingId);
    return { app, database };
  };
  const { app, database } = await start();
  return {
    app,
    database,
    storage,
    tab: async () => (await start()).app,
    close: async () => {
      for (const item of opened) {
        item.app.stop();
        item.database.close();
      }
      await database.delete();
    }
  };
}
