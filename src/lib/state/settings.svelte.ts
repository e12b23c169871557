/** The settings of this profile. Changing them is no step of undo. */
import { defaultProfile, profileId, newRow, type FocalisStore, type Profile } from '$lib/data';

export class Settings {
  readonly #store: FocalisStore;

  constructor(store: FocalisStore) {
    this.#store = store;
  }

  get now(): Profile {
    return this.#store.table('profile').get(profileId)?.value ?? defaultProfile;
  }

  set(changes: Partial<Profile>): void {
    this.#store.edit(
      'Settings',
      (draft) => {
        if (draft.row('profile', profileId)) draft.change('profile', profileId, (value) => ({ ...value, ...changes }));
        else draft.put('profile', newRow(profileId, { ...defaultProfile, ...changes }));
      },
      { history: false }
    );
  }
}
