/** Work that waits for its turn: addresses take turns, however much each of them asks for. */

interface Waiting {
  readonly address: string;
  readonly start: () => void;
  readonly giveUp: () => void;
}

export interface QueueLimits {
  /** Pieces of work done at once. */
  readonly atOnce: number;
  /** Most that may wait, of one address and of all. */
  readonly each: number;
  readonly all: number;
  /** Longest a piece may wait, ms. */
  readonly waitMs: number;
}

/** Why work was not done. */
export type QueueRefusal = 'tooMany' | 'full' | 'waitedTooLong';

export class FairQueue {
  readonly #limits: QueueLimits;
  readonly #running = new Map<string, number>();
  #inWork = 0;
  #waiting: readonly Waiting[] = [];
  /** Whose turn was last, the latest last. */
  #served: readonly string[] = [];

  constructor(limits: QueueLimits) {
    this.#limits = limits;
  }

  /**
   * Does the work once it is this address's turn: of those that wait, the address with the least in work comes first, then
   * the one that was served longest ago.
   *
   * @throws what the work throws
   */
  async run<T>(address: string, work: () => Promise<T>): Promise<T | QueueRefusal> {
    const { atOnce, each, all } = this.#limits;
    if (this.#inWork >= atOnce) {
      if (this.#waiting.filter((item) => item.address === address).length >= each) return 'tooMany';
      if (this.#waiting.length >= all) return 'full';
      if (!(await this.#turn(address))) return 'waitedTooLong';
    } else this.#begin(address);
    try {
      return await work();
    } finally {
      this.#end(address);
    }
  }

  #turn(address: string): Promise<boolean> {
    return new Promise((resolve) => {
      const item: Waiting = {
        address,
        start: () => {
          clearTimeout(timer);
          resolve(true);
        },
        giveUp: () => {
          this.#waiting = this.#waiting.filter((other) => other !== item);
          resolve(false);
        }
      };
      const timer = setTimeout(item.giveUp, this.#limits.waitMs);
      this.#waiting = [...this.#waiting, item];
    });
  }

  #begin(address: string): void {
    this.#inWork += 1;
    this.#running.set(address, (this.#running.get(address) ?? 0) + 1);
    this.#served = [...this.#served.filter((other) => other !== address), address].slice(-1000);
  }

  #end(address: string): void {
    this.#inWork -= 1;
    const left = (this.#running.get(address) ?? 1) - 1;
    if (left > 0) this.#running.set(address, left);
    else this.#running.delete(address);
    const next = this.#next();
    if (!next) return;
    this.#waiting = this.#waiting.filter((item) => item !== next);
    this.#begin(next.address);
    next.start();
  }

  #next(): Waiting | undefined {
    const rank = ({ address }: Waiting) => [this.#running.get(address) ?? 0, this.#served.indexOf(address)] as const;
    return this.#waiting.reduce<Waiting | undefined>((best, item) => {
      if (!best) return item;
      const [[work, served], [bestWork, bestServed]] = [rank(item), rank(best)];
      return work < bestWork || (work === bestWork && served < bestServed) ? item : best;
    }, undefined);
  }
}
