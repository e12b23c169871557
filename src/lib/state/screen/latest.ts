/**
 * Runs one piece of work at a time and keeps only the newest request waiting: while somebody drags, everything between
 * the one under way and the last is dropped unstarted.
 */
export class Latest<In, Out> {
  readonly #work: (input: In) => Promise<Out>;
  #running = false;
  #waiting: {
    readonly input: In;
    readonly settle: (result: Out | undefined) => void;
    readonly fail: (reason: unknown) => void;
  } | null = null;

  constructor(work: (input: In) => Promise<Out>) {
    this.#work = work;
  }

  /** The result, or undefined when a newer request made this one stale. */
  run(input: In): Promise<Out | undefined> {
    this.#waiting?.settle(undefined);
    return new Promise((settle, fail) => {
      this.#waiting = { input, settle, fail };
      if (!this.#running) void this.#next();
    });
  }

  async #next(): Promise<void> {
    this.#running = true;
    while (this.#waiting) {
      const { input, settle, fail } = this.#waiting;
      this.#waiting = null;
      try {
        const result = await this.#work(input);
        // Somebody has asked again meanwhile: this answer is to an old question.
        settle(this.#waiting ? undefined : result);
      } catch (reason) {
        fail(reason);
      }
    }
    this.#running = false;
  }
}
