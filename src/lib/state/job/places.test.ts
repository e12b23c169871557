import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { openApp, type OpenApp } from '$lib/testing/app';
import type { App } from '$lib/state/app.svelte';

let opened: OpenApp;
let app: App;
const door = 'demo-west-door';
const rings = 'demo-rings';
/** The setups taken where the door is. */
const there = () => app.open.rows.filter((row) => app.places.of(row.id) === app.places.of(door));

beforeEach(async () => {
  opened = await openApp();
  ({ app } = opened);
});
afterEach(() => opened.close());

const setup = (id: string) => {
  const found = app.open.row(id)?.setup;
  if (!found) throw new Error(id);
  return found;
};
const darken = (id: string) =>
  app.open.edit(id, 'Light', (draft) => void (draft.light.level = { kind: 'ev', ev100: 1 }));

describe('the place of a setup', () => {
  it('is shared, until something there is made the setup’s own', () => {
    expect(app.places.of(door)).toBe(app.places.of(rings));
    expect(app.places.uses(app.places.of(door)?.id ?? '')).toBe(there().length);
    expect(app.places.ownParts(door)).toEqual([]);
    const elsewhere = setup(rings).light;
    darken(door);
    expect(app.places.ownParts(door)).toEqual(['light']);
    expect(setup(rings).light).toBe(elsewhere);
    app.places.follow(door);
    expect(app.places.ownParts(door)).toEqual([]);
    expect(setup(door).light.level).toEqual({ kind: 'estimated', as: 'windowLight' });
  });

  it('takes on what a setup has of its own, for all who have nothing of their own', async () => {
    const ownLight = there()
      .filter((row) => app.places.ownParts(row.id).includes('light'))
      .map((row) => row.id);
    darken(door);
    app.places.share(door);
    for (const row of there()) {
      const dark = row.setup.light.level.kind === 'ev';
      expect(dark, row.setup.name).toBe(!ownLight.includes(row.id));
    }
    expect(app.places.ownParts(door)).toEqual([]);
    await app.step('undo');
    expect(app.places.ownParts(door)).toEqual(['light']);
    expect(setup('demo-rings').light.level).not.toEqual({ kind: 'ev', ev100: 1 });
  });

  it('is made anew from a setup, named, and taken by another, as it is there', () => {
    darken(door);
    app.places.add(door);
    const place = app.places.of(door);
    expect(place).toMatchObject({ name: 'Place 6', light: { level: { kind: 'ev' } } });
    expect(app.places.rename(place?.id ?? '', 'West door')).toBe(true);
    expect(app.places.rename(place?.id ?? '', ' ')).toBe(false);
    app.places.use(rings, place?.id ?? '');
    expect(app.places.of(rings)?.name).toBe('West door');
    expect(setup(rings).backgrounds).toEqual(setup(door).backgrounds);
    expect(app.places.ownParts(rings)).toEqual([]);
  });
});
