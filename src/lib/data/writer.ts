/** Brings changes into the store: in order, a run of them at a time, again until it works. Says truly how it stands. */
import type { Committed, Preference } from './commit';
import { joined } from './commit';
import type { Change } from './rows';

export type SaveState =
  | { readonly kind: 'saved'; readonly at: number | null }
  | { readonly kind: 'saving' }
  | { readonly kind: 'failed'; readonly error: unknown };

interface WriterOptions {
  readonly commit: (changes: readonly Change[], prefer: Preference) => Promise<Committed>;
  /** What was stored. It is called before anything that waits for it goes on. */
  readonly onCommitted: (committed: Committed) => void;
  readonly onState: (state: SaveState) => void;
  /** Everything the store has not confirmed, to be kept elsewhere meanwhile. */
  readonly keep: (unconfirmed: readonly Change[]) => void;
  readonly now: () => number;
}

/** Changes wait this long for more of their kind. */
const saveDelayMs = 150;

/** Waits between attempts after a failure; the last one repeats. */
const retryMs = [1000, 3000, 10_000, 30_000] as const;

export class Writer {
  readonly #options: WriterOptions;
  #waiting: readonly Change[] = [];
  #inFlight: readonly Change[] = [];
  /** Edits still being typed: shown, not yet meant. */
  #held: readonly Change[] = [];
  #queue: Promise<unknown> = Promise.resolve();
  #timer: ReturnType<typeof setTimeout> | undefined;
  #failures = 0;
  #savedAt: number | null = null;

  constructor(options: WriterOptions) {
    this.#options = options;
  }

  /** All that is shown and not stored, held edits too. */
  get unstored(): readonly Change[] {
    return joined(joined(this.#inFlight, this.#waiting), this.#held);
  }

  get unconfirmed(): readonly Change[] {
    return joined(this.#inFlight, this.#waiting);
  }

  put(changes: readonly Change[]): void {
    this.#waiting = joined(this.#waiting, changes);
    if (this.#failures > 0) {
      this.#options.keep(this.unconfirmed);
      return;
    }
    this.#options.onState({ kind: 'saving' });
    this.#flushIn(saveDelayMs);
  }

  /** Replaces what is held. */
  hold(changes: readonly Change[]): void {
    this.#held = changes;
  }

  #flushIn(ms: number): void {
    clearTimeout(this.#timer);
    this.#timer = setTimeout(() => void this.flush(), ms);
  }

  /** Stores what waits. True when, in the end, nothing does any more. */
  flush(): Promise<boolean> {
    clearTimeout(this.#timer);
    return this.#inOrder(async () => {
      if (this.#waiting.length === 0) return this.#failures === 0;
      this.#inFlight = this.#waiting;
      this.#waiting = [];
      try {
        const committed = await this.#options.commit(this.#inFlight, 'mine');
        this.#inFlight = [];
        this.#succeeded(committed);
        return true;
      } catch (error) {
        this.#waiting = joined(this.#inFlight, this.#waiting);
        this.#inFlight = [];
        this.#failed(error);
        return false;
      }
    });
  }

  /**
   * Stores these changes now, after all that waits.
   *
   * @param then is called in the very moment they are stored and shown, before anybody can do anything to them
   * @throws when they, or what waits before them, cannot be stored
   */
  async now<T>(changes: readonly Change[], prefer: Preference, then: (committed: Committed) => T): Promise<T> {
    if (!(await this.flush())) throw new NotSaved();
    return this.#inOrder(async () => {
      this.#options.onState({ kind: 'saving' });
      try {
        const committed = await this.#options.commit(changes, prefer);
        this.#succeeded(committed);
        return then(committed);
      } catch (error) {
        // Nothing of it is shown yet, so nothing waits for another attempt.
        this.#options.onState({ kind: 'saved', at: this.#savedAt });
        throw error;
      }
    });
  }

  #succeeded(committed: Committed): void {
    this.#failures = 0;
    this.#savedAt = this.#options.now();
    this.#options.onCommitted(committed);
    this.#options.keep(this.unconfirmed);
    this.#options.onState(this.#waiting.length > 0 ? { kind: 'saving' } : { kind: 'saved', at: this.#savedAt });
  }

  #failed(error: unknown): void {
    this.#options.keep(this.unconfirmed);
    this.#options.onState({ kind: 'failed', error });
    this.#flushIn(retryMs[Math.min(this.#failures, retryMs.length - 1)] ?? 0);
    this.#failures++;
  }

  stop(): void {
    clearTimeout(this.#timer);
  }

  #inOrder<T>(work: () => Promise<T>): Promise<T> {
    const done = this.#queue.then(work);
    this.#queue = done.catch(() => undefined);
    return done;
  }
}

/** Something before it could not be stored. */
class NotSaved extends Error {
  constructor() {
    super('Nothing can be stored at present.');
  }
}
