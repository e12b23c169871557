/** Work in a worker as a screen sees it: what was found, for what, how far it has come, whether it takes long, what went wrong. */
import { Latest } from '$lib/state/screen/latest';

/** A search shorter than this shows no progress. */
export const slowAfterMs = 200;

interface Request<Asked> {
  readonly asked: Asked;
  readonly onProgress: (share: number) => void;
}

export class Search<Asked, Found> {
  /** Each screen has a slot of its own: another's questions put none of its away. */
  readonly #latest: Latest<Request<Asked>, Found>;
  /** The last answer and what it answers. */
  answer = $state.raw<{ readonly to: Asked; readonly found: Found } | null>(null);
  /** 0 to 1. */
  progress = $state(0);
  busy = $state(false);
  /** Busy for long enough to say so. */
  slow = $state(false);
  /** Why there is no answer; null when there is one or it is still looked for. */
  failure = $state<string | null>(null);
  #asked: Asked | undefined;
  #timer: ReturnType<typeof setTimeout> | undefined;

  constructor(find: (asked: Asked, onProgress: (share: number) => void) => Promise<Found>) {
    this.#latest = new Latest(({ asked, onProgress }) => find(asked, onProgress));
  }

  /** Starts a search; one that is superseded changes nothing any more. */
  async ask(asked: Asked): Promise<void> {
    this.#asked = asked;
    this.busy = true;
    this.failure = null;
    this.progress = 0;
    this.#timer ??= setTimeout(() => (this.slow = true), slowAfterMs);
    const onProgress = (share: number) => {
      if (this.#asked === asked) this.progress = share;
    };
    try {
      const found = await this.#latest.run({ asked, onProgress });
      if (this.#asked !== asked) return;
      if (found !== undefined) this.answer = { to: asked, found };
    } catch (error) {
      if (this.#asked !== asked) return;
      this.failure = error instanceof Error ? error.message : String(error);
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
