import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { openApp, type OpenApp } from '$lib/testing/app';
import type { App } from './app.svelte';

let opened: OpenApp;
let app: App;
const door = 'demo-west-door';
const palms = 'demo-under-palms';

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
    expect(app.places.of(door)).toBe(app.places.of(palms));
    expect(app.places.uses(app.places.of(door)?.id ?? '')).toBe(app.open.rows.length);
    expect(app.places.ownParts(door)).toEqual([]);
    const elsewhere = setup(palms).light;
    darken(door);
    expect(app.places.ownParts(door)).toEqual(['light']);
    expect(setup(palms).light).toBe(elsewhere);
    app.places.follow(door);
    expect(app.places.ownParts(door)).toEqual([]);
    expect(setup(door).light.level).toEqual({ kind: 'estimated', as: 'windowLight' });
  });

  it('takes on what a setup has of its own, for all who have nothing of their own', async () => {
    const ownLight = app.open.rows.filter((row) => app.places.ownParts(row.id).includes('light')).map((row) => row.id);
    darken(door);
    app.places.share(door);
    for (const row of app.open.rows) {
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
    expect(place).toMatchObject({ name: 'Place 2', light: { level: { kind: 'ev' } } });
    expect(app.places.rename(place?.id ?? '', 'West door')).toBe(true);
    expect(app.places.rename(place?.id ?? '', ' ')).toBe(false);
    app.places.use(palms, place?.id ?? '');
    expect(app.places.of(palms)?.name).toBe('West door');
    expect(setup(palms).backgrounds).toEqual(setup(door).backgrounds);
    expect(app.places.ownParts(palms)).toEqual([]);
  });
});
