/** The way to the renderer's worker: who asks for a picture gets it, and better ones after it, until somebody asks anew. */
import { proxy, wrap, type Remote } from 'comlink';
import { createContext } from 'svelte';
import type { Picture, PictureRequest } from '../../render/studio';
import type { RendererWorker } from '../../workers/renderer.worker';

export type Asked = Omit<PictureRequest, 'turn'>;
type Listener = (picture: Picture) => void;

/** The slot of the picture everybody looks at. */
export const finderSlot = 'finder';

export class Pictures {
  /** Whether there is something to draw with. */
  status = $state<'starting' | 'ready' | 'missing' | 'lost'>('starting');
  /** Why the Finder's picture could not be drawn. */
  failure = $state<string | null>(null);
  #worker: Remote<RendererWorker> | undefined;
  #thread: Worker | undefined;
  // eslint-disable-next-line svelte/prefer-svelte-reactivity -- bookkeeping that no screen reads
  readonly #listeners = new Map<
    string,
    { readonly turn: number; readonly listener: Listener; readonly asked: Asked }
  >();
  #turn = 0;

  /** Starts the worker, or starts it again after it was lost, and asks anew for everything open. */
  start(): void {
    this.#thread?.terminate();
    this.status = 'starting';
    this.failure = null;
    // The bundler finds the worker by this very expression.
    // eslint-disable-next-line svelte/prefer-svelte-reactivity
    const thread = new Worker(new URL('../../workers/renderer.worker.ts', import.meta.url), { type: 'module' });
    this.#thread = thread;
    const worker = wrap<RendererWorker>(thread);
    this.#worker = worker;
    const picture = (shown: Picture) => {
      const waiting = this.#listeners.get(shown.slot);
      if (waiting?.turn === shown.turn) waiting.listener(shown);
      else shown.image.close();
    };
    // Other pictures that fail (a figure that could not be fetched) leave what was there; the next change asks again.
    const failed = (slot: string, reason: string) => {
      if (slot === finderSlot) this.failure = reason;
    };
    const lost = () => void (this.status = 'lost');
    thread.onerror = lost;
    void worker.start(proxy(picture), proxy(failed), proxy(lost)).then((started) => {
      if (this.#thread !== thread) return;
      this.status = started ? 'ready' : 'missing';
      if (started) for (const { asked, turn } of this.#listeners.values()) void worker.ask({ ...asked, turn });
    });
  }

  stop(): void {
    this.#thread?.terminate();
    this.#thread = undefined;
    this.#worker = undefined;
  }

  ask(asked: Asked, listener: Listener): void {
    const turn = ++this.#turn;
    this.#listeners.set(asked.slot, { turn, listener, asked });
    if (this.status === 'ready') void this.#worker?.ask({ ...asked, turn });
  }

  drop(slot: string): void {
    this.#listeners.delete(slot);
    if (this.status === 'ready') void this.#worker?.drop(slot);
  }
}

export const [getPictures, setPictures] = createContext<Pictures>();
