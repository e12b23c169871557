/** Focalis kept in the browser: starts its service worker, and says when a new version waits. */
import { takeOver } from './names';

export class Offline {
  /** A new version is there and waits. */
  waiting = $state(false);
  /** Everything that is needed without a network has been fetched. */
  ready = $state(false);
  #registration: ServiceWorkerRegistration | undefined;

  readonly #workers: ServiceWorkerContainer | undefined;

  /** Without any where the browser keeps no pages: most ask for https, or this machine itself. */
  constructor(workers: ServiceWorkerContainer | undefined) {
    this.#workers = workers;
  }

  get possible(): boolean {
    return this.#workers !== undefined;
  }

  /** `replaced`: another version has taken over, here or in another tab; what it had fetched for this page is gone. */
  async start(replaced: () => void): Promise<void> {
    const workers = this.#workers;
    if (!workers) return;
    let controlled = workers.controller !== null;
    try {
      const registration = await workers.register('/service-worker.js');
      this.#registration = registration;
      this.#look();
      registration.addEventListener('updatefound', () => {
        const coming = registration.installing;
        coming?.addEventListener('statechange', () => this.#look());
      });
      workers.addEventListener('controllerchange', () => {
        // The first to take over a page that had none changes nothing for it.
        if (controlled) replaced();
        controlled = true;
      });
      void workers.ready.then(() => (this.ready = true));
    } catch {
      // A browser that keeps nothing: Focalis works as long as there is a network.
    }
  }

  #look(): void {
    this.waiting = this.#registration?.waiting != null && this.#workers?.controller != null;
  }

  /** Looks whether there is a new version; without a network there is none. */
  check(): void {
    this.#registration?.update().then(
      () => this.#look(),
      () => undefined
    );
  }

  /** The waiting version takes over, and the page starts anew in it. */
  takeOver(): void {
    this.#registration?.waiting?.postMessage(takeOver);
  }
}
