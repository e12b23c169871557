/** The settings of this profile. How Focalis looks is no step of undo; what somebody measured, typed or decided is. */
import type { EditResult } from '$lib/data/store.svelte';
import { defaultProfile, profileId, newRow, type FocalisStore, type Profile } from '$lib/data';

export class Settings {
  readonly #store: FocalisStore;

  constructor(store: FocalisStore) {
    this.#store = store;
  }

  get now(): Profile {
    return this.#store.table('profile').get(profileId)?.value ?? defaultProfile;
  }

  /** How it looks, and what it remembers by itself. */
  set(changes: Partial<Profile>): void {
    this.#change('Settings', changes, false);
  }

  /** Figures, answers and keys of one's own. Returns the step of undo; null where nothing has changed. */
  edit(label: string, changes: Partial<Profile>): number | null {
    // Taking it back must not take the whole profile back.
    if (!this.#store.table('profile').get(profileId)) this.set({});
    const result = this.#change(label, changes, true);
    return result.ok ? result.step : null;
  }

  #change(label: string, changes: Partial<Profile>, history: boolean): EditResult {
    return this.#store.edit(
      label,
      (draft) => {
        if (draft.row('profile', profileId)) draft.change('profile', profileId, (value) => ({ ...value, ...changes }));
        else draft.put('profile', newRow(profileId, { ...defaultProfile, ...changes }));
      },
      { history }
    );
  }
}
