/** Sealed jobs waiting to be picked up: ciphertext only, for a while, within limits. Nothing of it is ever written down. */

import { maxPickupBytes } from '$core/service/limits';

interface ShelfLimits {
  /** How long an item waits, ms. */
  readonly keptMs: number;
  /** Largest item, bytes; most items; most bytes of all together. */
  readonly itemBytes: number;
  readonly items: number;
  readonly bytes: number;
}

export const shelfLimits: ShelfLimits = {
  keptMs: 10 * 60_000,
  itemBytes: maxPickupBytes,
  items: 64,
  bytes: 128 * 1024 * 1024
};

interface Item {
  readonly bytes: Uint8Array<ArrayBuffer>;
  readonly until: number;
}

export class Shelf {
  readonly #limits: ShelfLimits;
  readonly #now: () => number;
  readonly #items = new Map<string, Item>();

  constructor(limits: ShelfLimits = shelfLimits, now: () => number = Date.now) {
    this.#limits = limits;
    this.#now = now;
  }

  #sweep(): void {
    const now = this.#now();
    for (const [id, item] of this.#items) if (item.until <= now) this.#items.delete(id);
  }

  /** Puts an item there, in place of an earlier one of the same id. Says why not. */
  put(id: string, bytes: Uint8Array<ArrayBuffer>): 'kept' | 'tooLarge' | 'full' {
    this.#sweep();
    if (bytes.length > this.#limits.itemBytes) return 'tooLarge';
    const others = [...this.#items].filter(([other]) => other !== id).map(([, item]) => item.bytes.length);
    const sum = others.reduce((total, size) => total + size, 0);
    if (others.length >= this.#limits.items || sum + bytes.length > this.#limits.bytes) return 'full';
    this.#items.set(id, { bytes, until: this.#now() + this.#limits.keptMs });
    return 'kept';
  }

  /** The item, which stays there until somebody says that it has arrived, or its time is over. */
  get(id: string): Uint8Array<ArrayBuffer> | null {
    this.#sweep();
    return this.#items.get(id)?.bytes ?? null;
  }

  /** Whether there was one to take away. */
  remove(id: string): boolean {
    this.#sweep();
    return this.#items.delete(id);
  }
}
