/** Which body and lens something is about: chosen, else what the first setup of the open job holds, else the first of the kit. */
import type { Body, Lens } from '$core/kit/schema';
import type { App } from '$lib/state/app.svelte';

export class KitInUse {
  readonly #app: App;
  bodyId = $state('');
  lensId = $state('');

  constructor(app: App, chosen: { readonly bodyId: string; readonly lensId: string } = { bodyId: '', lensId: '' }) {
    this.#app = app;
    this.bodyId = chosen.bodyId;
    this.lensId = chosen.lensId;
  }

  readonly #held = $derived.by(() => this.#app.open.rows[0]?.setup.camera);
  readonly bodies = $derived.by(() => this.#app.kit.shown.bodies.filter(({ retired }) => !retired));
  readonly lenses = $derived.by(() => this.#app.kit.shown.lenses.filter(({ retired }) => !retired));
  readonly body: Body | undefined = $derived.by(() =>
    firstOf(this.#app.kit.shown.bodies, this.bodyId, this.#held?.bodyId)
  );
  readonly lens: Lens | undefined = $derived.by(() =>
    firstOf(this.#app.kit.shown.lenses, this.lensId, this.#held?.lensId)
  );
}

/** The first of these ids that is there, else the first of all. */
function firstOf<T extends { readonly id: string }>(all: readonly T[], ...ids: (string | undefined)[]): T | undefined {
  for (const wanted of ids) {
    const found = all.find(({ id }) => id === wanted);
    if (found) return found;
  }
  return all[0];
}
