/** Work in a worker as a screen sees it: what was found, for what, how far it has come, and whether it takes long. */

/** A search shorter than this shows no progress. */
export const slowAfterMs = 200;

export class Search<Asked, Found> {
  readonly #find: (asked: Asked, onProgress: (share: number) => void) => Promise<Found | undefined>;
  /** The last answer and what it answers. */
  answer = $state.raw<{ readonly to: Asked; readonly found: Found } | null>(null);
  /** 0 to 1. */
  progress = $state(0);
  busy = $state(false);
  /** Busy for long enough to say so. */
  slow = $state(false);
  failed = $state(false);
  #asked: Asked | undefined;
  #timer: ReturnType<typeof setTimeout> | undefined;

  constructor(find: (asked: Asked, onProgress: (share: number) => void) => Promise<Found | undefined>) {
    this.#find = find;
  }

  /** Starts a search; one that is superseded changes nothing any more. */
  async ask(asked: Asked): Promise<void> {
    this.#asked = asked;
    this.busy = true;
    this.failed = false;
    this.progress = 0;
    this.#timer ??= setTimeout(() => (this.slow = true), slowAfterMs);
    try {
      const found = await this.#find(asked, (share) => {
        if (this.#asked === asked) this.progress = share;
      });
      if (this.#asked !== asked) return;
      if (found !== undefined) this.answer = { to: asked, found };
    } catch {
      if (this.#asked !== asked) return;
      this.failed = true;
    }
    this.stop();
  }

  /** Ends whatever is under way, or is no longer wanted. */
  stop(): void {
    clearTimeout(this.#timer);
    this.#timer = undefined;
    this.#asked = undefined;
    this.busy = false;
    this.slow = false;
  }
}
