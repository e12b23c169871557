/** The way to the renderer's worker, which starts when it is first asked: who asks for a rendering gets it, and better ones after it, until somebody asks anew. */
import { proxy } from 'comlink';
import { createContext } from 'svelte';
import type { Rendering, RenderingQuestion } from '../../render/studio';
import { startThread, type Thread } from '../client';
import type { RendererWorker } from '../renderer.worker';

type Listener = (picture: Rendering) => void;

/** The slot of the rendering everybody looks at. */
export const finderSlot = 'finder';

export class Renderings {
  /** Whether there is something to draw with. */
  status = $state<'starting' | 'ready' | 'missing' | 'lost'>('starting');
  /** Why the Finder's rendering could not be drawn. */
  failure = $state<string | null>(null);
  #thread: Thread<RendererWorker> | undefined;
  // eslint-disable-next-line svelte/prefer-svelte-reactivity -- bookkeeping that no screen reads
  readonly #listeners = new Map<
    string,
    { readonly turn: number; readonly listener: Listener; readonly asked: RenderingQuestion }
  >();
  #turn = 0;

  /** Starts the worker, or starts it again after it was lost, and asks anew for everything open. */
  start(): void {
    this.#thread?.end();
    this.status = 'starting';
    this.failure = null;
    const lost = () => void (this.status = 'lost');
    const thread = startThread<RendererWorker>(
      // The bundler finds the worker by this very expression.
      // eslint-disable-next-line svelte/prefer-svelte-reactivity
      () => new Worker(new URL('../renderer.worker.ts', import.meta.url), { type: 'module' }),
      lost
    );
    this.#thread = thread;
    const show = (shown: Rendering) => {
      const waiting = this.#listeners.get(shown.slot);
      if (waiting?.turn === shown.turn) waiting.listener(shown);
      else shown.image.close();
    };
    // Others that fail (a figure that could not be fetched) leave what was there; the next change asks again.
    const failed = (slot: string, reason: string) => {
      if (slot === finderSlot) this.failure = reason;
    };
    void thread.api.start(proxy(show), proxy(failed), proxy(lost)).then((started) => {
      if (this.#thread !== thread) return;
      this.status = started ? 'ready' : 'missing';
      if (started) for (const { asked, turn } of this.#listeners.values()) void thread.api.ask({ ...asked, turn });
    });
  }

  stop(): void {
    this.#thread?.end();
    this.#thread = undefined;
  }

  ask(asked: RenderingQuestion, listener: Listener): void {
    const turn = ++this.#turn;
    this.#listeners.set(asked.slot, { turn, listener, asked });
    if (!this.#thread) this.start();
    else if (this.status === 'ready') void this.#thread.api.ask({ ...asked, turn });
  }

  drop(slot: string): void {
    this.#listeners.delete(slot);
    if (this.status === 'ready') void this.#thread?.api.drop(slot);
  }
}

export const [getRenderings, setRenderings] = createContext<Renderings>();
