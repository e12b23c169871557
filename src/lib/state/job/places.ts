/** Setups and the places they are taken at. */
import type { JobPlace, JobSetup, OwnPlace } from '$core/job/schema';
import { newRow, type Row } from '$lib/data';
import type { Services } from './services';

export type PlacePart = keyof OwnPlace;

const parts: readonly PlacePart[] = ['scenery', 'room', 'backgrounds', 'light'];
const nothingOwn: OwnPlace = { scenery: null, room: null, backgrounds: null, light: null };

export class Places {
  readonly #parts: Services;

  constructor(shared: Services) {
    this.#parts = shared;
  }

  #setup(id: string): Row<JobSetup> | undefined {
    return this.#parts.open.stored(id);
  }

  of(setupId: string): JobPlace | undefined {
    return this.#parts.store.table('places').get(this.#setup(setupId)?.value.placeId ?? '')?.value;
  }

  /** What differs here from the place. */
  ownParts(setupId: string): readonly PlacePart[] {
    const own = this.#setup(setupId)?.value.own;
    return own ? parts.filter((part) => own[part] !== null) : [];
  }

  /** How many setups are taken at a place. */
  uses(placeId: string): number {
    return this.#parts.store.table('setups').list.filter((row) => row.value.placeId === placeId).length;
  }

  /** Takes a setup to another place, as it is there. */
  use(setupId: string, placeId: string): void {
    this.#change(setupId, 'Place', (setup) => ({ ...setup, placeId, own: nothingOwn }));
  }

  /** Everything is as the place again. */
  follow(setupId: string): void {
    this.#change(setupId, 'Match the place', (setup) => ({ ...setup, own: nothingOwn }));
  }

  #change(setupId: string, label: string, recipe: (setup: JobSetup) => JobSetup): void {
    this.#parts.store.edit(label, (draft) => draft.change('setups', setupId, recipe));
  }

  /** What differs here becomes the place's, for every setup there that has nothing of its own. */
  share(setupId: string): void {
    const row = this.#setup(setupId);
    const place = this.of(setupId);
    if (!row || !place) return;
    const { own } = row.value;
    const { store } = this.#parts;
    store.edit(`${place.name} changed`, (draft) => {
      draft.change('places', place.id, (was) => ({
        ...was,
        scenery: own.scenery ?? was.scenery,
        room: own.room ?? was.room,
        backgrounds: own.backgrounds ?? was.backgrounds,
        light: own.light ?? was.light
      }));
      draft.change('setups', setupId, (setup) => ({ ...setup, own: nothingOwn }));
    });
  }

  /** A new place, as this setup is. */
  add(setupId: string): void {
    const { store, open, newId } = this.#parts;
    const setup = open.row(setupId)?.setup;
    if (!setup || open.id === null) return;
    const owner = open.id;
    const { scenery, ...room } = setup.place;
    const { backgrounds, light } = setup;
    const names = open.places.map((item) => item.name);
    let n = names.length + 1;
    while (names.includes(`Place ${n}`)) n++;
    const place: JobPlace = { id: newId(), name: `Place ${n}`, scenery, room, backgrounds, light };
    store.edit(`${place.name} added`, (draft) => {
      draft.put('places', newRow(place.id, place, { owner, position: names.length }));
      draft.change('setups', setupId, (stored) => ({ ...stored, placeId: place.id, own: nothingOwn }));
    });
  }

  /** Names a place. False when that is no name. */
  rename(placeId: string, name: string): boolean {
    return this.#parts.store.edit('Place name', (draft) =>
      draft.change('places', placeId, (place) => ({ ...place, name }))
    ).ok;
  }
}
