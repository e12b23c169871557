/**
 * Takes the newest of what comes in, in a task of its own. Browsers deliver pointer moves in the very task that lays out
 * and paints the frame; work put off by a task keeps both short, and moves that come meanwhile are not worked through.
 */
export class Coalesced<T extends readonly unknown[]> {
  readonly #work: (...given: T) => void;
  #waiting: T | undefined;
  #timer: ReturnType<typeof setTimeout> | undefined;

  constructor(work: (...given: T) => void) {
    this.#work = work;
  }

  push(...given: T): void {
    this.#waiting = given;
    this.#timer ??= setTimeout(() => this.flush());
  }

  /** Does now what is waiting. */
  flush(): void {
    clearTimeout(this.#timer);
    this.#timer = undefined;
    const waiting = this.#waiting;
    this.#waiting = undefined;
    if (waiting) this.#work(...waiting);
  }
}
