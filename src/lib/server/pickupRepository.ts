/**
 * Sealed jobs waiting to be picked up: ciphertext only, for a while, within limits. They are kept in this server's memory, or,
 * where several servers share the work, in a Redis-compatible store that all of them reach.
 */
import { createHash } from 'node:crypto';
import { createStorage, type Storage } from 'unstorage';
import { maxPickupBytes } from '$core/service/limits';

interface ShelfLimits {
  /** How long an item waits, ms. */
  readonly keptMs: number;
  /** Largest item, bytes; most items; most bytes of all together. */
  readonly itemBytes: number;
  readonly items: number;
  readonly bytes: number;
  /** Most items of one address. */
  readonly ofOne: number;
}

export const pickupLimits: ShelfLimits = {
  keptMs: 10 * 60_000,
  itemBytes: maxPickupBytes,
  items: 256,
  bytes: 128 * 1024 * 1024,
  ofOne: 8
};

/** What is known of an item without reading it. */
interface Label {
  readonly bytes: number;
  readonly until: number;
  /** Who left it, as a digest: it is only ever compared. */
  readonly from: string;
}

const digestOf = (address: string): string => createHash('sha256').update(address).digest('base64url').slice(0, 16);

const labels = 'label';
const items = 'item';
const keyOf = (kind: typeof labels | typeof items, id: string) => `${kind}:${id}`;

export class PickupRepository {
  readonly #limits: ShelfLimits;
  readonly #now: () => number;
  readonly #storage: Storage;
  /** One after the other: what is counted is still so when it is put there. */
  #turn: Promise<unknown> = Promise.resolve();

  constructor(limits: ShelfLimits = pickupLimits, now: () => number = Date.now, storage: Storage = createStorage()) {
    this.#limits = limits;
    this.#now = now;
    this.#storage = storage;
  }

  #inTurn<T>(work: () => Promise<T>): Promise<T> {
    const result = this.#turn.then(work);
    this.#turn = result.catch(() => undefined);
    return result;
  }

  /** What waits; what has waited too long goes. */
  async #waiting(): Promise<ReadonlyMap<string, Label>> {
    const now = this.#now();
    const waiting = new Map<string, Label>();
    for (const key of await this.#storage.getKeys(labels)) {
      const id = key.slice(labels.length + 1);
      const label = await this.#storage.getItem<Label>(key);
      if (label && label.until > now) waiting.set(id, label);
      else await this.#drop(id);
    }
    return waiting;
  }

  async #drop(id: string): Promise<void> {
    await this.#storage.removeItem(keyOf(items, id));
    await this.#storage.removeItem(keyOf(labels, id));
  }

  /**
   * Puts an item there, in place of an earlier one of the same id. Says why not. Several servers that take something in the same
   * moment may each count without the other's.
   */
  put(id: string, bytes: Uint8Array<ArrayBuffer>, address: string): Promise<'kept' | 'tooLarge' | 'enough' | 'full'> {
    return this.#inTurn(async () => {
      if (bytes.length > this.#limits.itemBytes) return 'tooLarge';
      const from = digestOf(address);
      const others = [...(await this.#waiting())].filter(([other]) => other !== id).map(([, label]) => label);
      const sum = others.reduce((total, label) => total + label.bytes, 0);
      if (others.filter((label) => label.from === from).length >= this.#limits.ofOne) return 'enough';
      if (others.length >= this.#limits.items || sum + bytes.length > this.#limits.bytes) return 'full';
      // A store that forgets by itself does so should this server not live to sweep.
      const ttl = { ttl: Math.ceil(this.#limits.keptMs / 1000) };
      const label: Label = { bytes: bytes.length, until: this.#now() + this.#limits.keptMs, from };
      await this.#storage.setItemRaw(keyOf(items, id), bytes, ttl);
      await this.#storage.setItem(keyOf(labels, id), { ...label }, ttl);
      return 'kept';
    });
  }

  /** The item, which stays there until somebody says that it has arrived, or its time is over. */
  async get(id: string): Promise<Uint8Array<ArrayBuffer> | null> {
    if (!(await this.has(id))) return null;
    const bytes = await this.#storage.getItemRaw<Uint8Array<ArrayBuffer>>(keyOf(items, id));
    return bytes ? new Uint8Array(bytes) : null;
  }

  async has(id: string): Promise<boolean> {
    const label = await this.#storage.getItem<Label>(keyOf(labels, id));
    return label !== null && label.until > this.#now();
  }

  /** Whether there was one to take away. */
  remove(id: string): Promise<boolean> {
    return this.#inTurn(async () => {
      const there = await this.has(id);
      await this.#drop(id);
      return there;
    });
  }
}
