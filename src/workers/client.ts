/** The ways to a worker: a thread that says when it is lost, and, on top of it, questions that are always answered. */
import { wrap, type Remote } from 'comlink';

export interface Thread<Api> {
  readonly api: Remote<Api>;
  readonly end: () => void;
}

/** Starts a worker; `lost` is called at most once, when it has crashed, and never after `end`. */
export function startThread<Api>(start: () => Worker, lost: () => void): Thread<Api> {
  const worker = start();
  let ended = false;
  const end = () => {
    ended = true;
    worker.terminate();
  };
  const crashed = () => {
    if (ended) return;
    end();
    lost();
  };
  worker.addEventListener('error', crashed);
  worker.addEventListener('messageerror', crashed);
  return { api: wrap<Api>(worker), end };
}

export type WorkerFailure = 'crashed' | 'silent' | 'cancelled';

export class WorkerFailed extends Error {
  readonly kind: WorkerFailure;

  constructor(kind: WorkerFailure) {
    super(
      {
        crashed: 'The calculation stopped unexpectedly.',
        silent: 'The calculation does not answer.',
        cancelled: 'The calculation was cancelled.'
      }[kind]
    );
    this.kind = kind;
  }
}

/** Without an answer or a sign of progress for so long a worker is taken to hang. */
export const workerSilentAfterMs = 60_000;

interface Running<Api> {
  readonly thread: Thread<Api>;
  readonly open: Set<(failure: WorkerFailed) => void>;
  timer: ReturnType<typeof setTimeout> | undefined;
}

export interface CallOptions {
  /** Gives the question up; when nothing else is asked, the worker's work ends at once. */
  readonly signal?: AbortSignal | undefined;
  /** What the worker reports while it works; never called once there is an answer. */
  readonly onProgress?: (share: number) => void;
}

/**
 * Questions to a worker: it is started when first needed; one that crashes or falls silent fails every question it has, and
 * the next question starts another.
 */
export class WorkerClient<Api> {
  readonly #start: () => Worker;
  readonly #silentMs: number;
  #running: Running<Api> | undefined;

  constructor(start: () => Worker, silentMs = workerSilentAfterMs) {
    this.#start = start;
    this.#silentMs = silentMs;
  }

  /**
   * Asks the worker. `progress` is to be called at every sign of it: reports come another way than the answer, and may be
   * late.
   *
   * @throws WorkerFailed when there will be no answer; else what the worker throws
   */
  call<T>(
    ask: (api: Remote<Api>, progress: (share: number) => void) => Promise<T>,
    { signal, onProgress }: CallOptions = {}
  ): Promise<T> {
    const running = (this.#running ??= this.#launch());
    return new Promise<T>((resolve, reject) => {
      const fail = (failure: WorkerFailed) => {
        running.open.delete(fail);
        reject(failure);
      };
      const end = () => {
        running.open.delete(fail);
        signal?.removeEventListener('abort', cancel);
        this.#watch(running);
      };
      const cancel = () => {
        end();
        reject(new WorkerFailed('cancelled'));
        if (running.open.size === 0) this.#drop(running);
      };
      if (signal?.aborted) {
        reject(new WorkerFailed('cancelled'));
        return;
      }
      signal?.addEventListener('abort', cancel);
      running.open.add(fail);
      this.#watch(running);
      const settled =
        <V>(settle: (value: V) => void) =>
        (value: V) => {
          end();
          settle(value);
        };
      const progress = (share: number) => {
        if (!running.open.has(fail)) return;
        this.#watch(running);
        onProgress?.(share);
      };
      ask(running.thread.api, progress).then(settled(resolve), settled(reject));
    });
  }

  #launch(): Running<Api> {
    const thread = startThread<Api>(this.#start, () => this.#fail(running, 'crashed'));
    const running: Running<Api> = { thread, open: new Set(), timer: undefined };
    return running;
  }

  /** Starts the clock anew, or stops it when nothing is asked. */
  #watch(running: Running<Api>): void {
    clearTimeout(running.timer);
    if (running.open.size > 0) running.timer = setTimeout(() => this.#fail(running, 'silent'), this.#silentMs);
  }

  #fail(running: Running<Api>, kind: WorkerFailure): void {
    this.#drop(running);
    for (const fail of [...running.open]) fail(new WorkerFailed(kind));
  }

  #drop(running: Running<Api>): void {
    clearTimeout(running.timer);
    running.thread.end();
    if (this.#running === running) this.#running = undefined;
  }

  /** Ends the worker; whatever is asked of it fails. */
  stop(): void {
    if (this.#running) this.#fail(this.#running, 'cancelled');
  }
}
