import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { writeKitFile } from '$core/formats/kitFile';
import { newBody, newLens } from '$core/kit/defaults';
import { adapterStarts, bodyStarts, lensStarts, megapixels } from '$core/kit/startingPoints';
import { adapterSchema, bodySchema, lensSchema } from '$core/kit/schema';
import { openApp, until } from '$lib/testing/app';
import type { App } from '$lib/state/app.svelte';

let app: App;
let close: () => Promise<void>;
beforeEach(async () => {
  ({ app, close } = await openApp());
});
afterEach(() => close());

const file = (text: string, name = 'kit.json') => new File([text], name);

describe('starting points', () => {
  it('are all sound, and what their names say', () => {
    for (const start of bodyStarts) {
      const body = start.make('b');
      expect(bodySchema.safeParse(body).error, start.name).toBeUndefined();
      expect(`${Math.round(megapixels(body.sensor))} MP`).toBe(/\d+ MP/.exec(start.name)?.[0] ?? '12 MP');
    }
    for (const start of lensStarts) expect(lensSchema.safeParse(start.make('l')).error, start.name).toBeUndefined();
    for (const start of adapterStarts) expect(adapterSchema.safeParse(start.make('a')).error).toBeUndefined();
  });
});

describe('one’s own kit', () => {
  it('is added, changed, duplicated, and each is one step of undo', async () => {
    const { kit } = app;
    const id = kit.add('lenses', (made) => newLens(made, '85 mm f/1.8', { shortestMm: 85 }));
    expect(kit.change('lenses', id, 'widest opening', (draft) => void (draft.widestFNumber = 2))).toBeNull();
    const copy = kit.duplicate('lenses', id);
    expect(kit.find('lenses', copy ?? '')).toMatchObject({ name: '85 mm f/1.8 (2)', widestFNumber: 2 });
    await app.step('undo');
    expect(kit.find('lenses', copy ?? '')).toBeUndefined();
    await app.step('undo');
    expect(kit.find('lenses', id)?.widestFNumber).toBe(1.8);
  });

  it('refuses what cannot be, in the words of its fields, and stays as it was', () => {
    const { kit } = app;
    const id = kit.add('lenses', (made) => newLens(made, 'Zoom', { shortestMm: 24, longestMm: 70 }));
    const before = kit.find('lenses', id);
    expect(kit.change('lenses', id, 'widest', (draft) => void (draft.widestFNumber = 22))).toBe(
      'The smallest opening cannot be wider than the widest.'
    );
    expect(kit.change('lenses', id, 'focal', (draft) => void (draft.longestMm = 20))).toBe(
      'The longest focal length cannot be under the shortest.'
    );
    expect(kit.find('lenses', id)).toEqual(before);
    const body = kit.add('bodies', (made) => newBody(made, 'Body'));
    expect(kit.change('bodies', body, 'edge', (draft) => void (draft.sensor.heightMm = 40))).toContain('short edge');
  });

  it('says which setups hold an item; removed, they ask for another, and undo brings it back', async () => {
    const { kit } = app;
    const id = kit.add('lenses', (made) => newLens(made, 'Mine', { shortestMm: 85 }));
    const row = app.open.rows[0];
    if (!row) throw new Error('no demo');
    expect(await kit.uses('lenses', id)).toEqual([]);
    app.open.edit(row.id, 'Lens', (draft) => void (draft.camera.lensId = id));
    expect(await kit.uses('lenses', id)).toEqual([
      { setupId: row.id, setup: row.setup.name, job: 'Fernhall Glasshouse' }
    ]);
    expect((await kit.uses('lenses', 'lens-85')).length).toBeGreaterThan(2);
    kit.remove('lenses', id);
    const planned = () => app.open.planned(app.open.row(row.id)?.setup ?? row.setup).plan;
    expect(planned()).toMatchObject({ kind: 'noPlan', reason: { code: 'unknownLens', id } });
    await app.step('undo');
    expect(planned().kind).toBe('plan');
  });

  it('retired stays for the setups that have it, and is offered to no others', () => {
    const { kit } = app;
    expect(app.open.offered.lenses.some((lens) => lens.id === 'lens-85')).toBe(true);
    kit.change('lenses', 'lens-85', 'retired', (draft) => void (draft.retired = true));
    expect(app.open.offered.lenses.some((lens) => lens.id === 'lens-85')).toBe(false);
    const holder = app.open.rows.find((row) => row.setup.camera.lensId === 'lens-85');
    const other = app.open.rows.find((row) => row.setup.camera.lensId !== 'lens-85');
    if (!holder || !other) throw new Error('the demo has changed');
    expect(app.open.planned(holder.setup).plan.kind).toBe('plan');
    expect(app.open.input(holder.setup).kit.lenses.some((lens) => lens.id === 'lens-85')).toBe(true);
    expect(app.open.input(other.setup).kit).toEqual(app.open.offered);
    // As it came again.
    kit.remove('lenses', 'lens-85');
    expect(kit.isOwn('lenses', 'lens-85')).toBe(false);
    expect(app.open.offered.lenses.some((lens) => lens.id === 'lens-85')).toBe(true);
  });

  it('alone is offered once what came with Focalis is put away, and new pictures are taken with it', () => {
    const { kit } = app;
    kit.add('bodies', (made) => newBody(made, 'Mine', { mount: 'short' }));
    kit.add('lenses', (made) => newLens(made, 'My 50', { shortestMm: 50, mount: 'short' }));
    kit.add('lenses', (made) => newLens(made, 'Other mount', { shortestMm: 85, mount: 'long' }));
    app.settings.set({ builtInKit: false });
    expect(app.open.offered.bodies.map((body) => body.name)).toEqual(['Mine']);
    const id = app.setups.add({ template: 'onePerson' });
    const { body, lens, plan } = app.open.planned(app.open.row(id ?? '')?.setup ?? (undefined as never));
    expect([body?.name, lens?.name, plan.kind]).toEqual(['Mine', 'My 50', 'plan']);
  });
});

describe('bags', () => {
  it('limit what a job offers, and go with their items', async () => {
    const { kit } = app;
    const bag = kit.addBag();
    kit.changeBag(bag, 'packed', (draft) => {
      draft.bodies = [{ bodyId: 'body-main', lensId: 'lens-50' }];
      draft.lensIds = ['lens-135'];
    });
    app.jobs.change('demo-fernhall', 'Bag', { bagId: bag });
    expect(app.open.offered.bodies.map((body) => body.id)).toEqual(['body-main']);
    expect(app.open.offered.lenses.map((lens) => lens.id)).toEqual(['lens-50', 'lens-135']);
    kit.removeBag(bag);
    expect(app.open.offered.bodies.length).toBeGreaterThan(1);
    expect(app.open.job?.bagId).toBeNull();
    await app.step('undo');
    expect(app.open.job?.bagId).toBe(bag);
    const own = kit.add('lenses', (made) => newLens(made, 'Mine'));
    kit.changeBag(bag, 'packed', (draft) => void draft.lensIds.push(own));
    kit.remove('lenses', own);
    expect(kit.bags[0]?.lensIds).toEqual(['lens-135']);
  });
});

describe('kit files', () => {
  it('come back whole elsewhere; taken twice, nothing is there twice', async () => {
    const { kit } = app;
    kit.add('lenses', (made) => newLens(made, 'Mine', { shortestMm: 40, mount: 'aa' }));
    const converter = adapterStarts[1];
    if (converter) kit.add('adapters', converter.make);
    const bag = kit.addBag();
    kit.changeBag(bag, 'packed', (draft) => void (draft.lensIds = kit.all.lenses.map((lens) => lens.id)));
    const text = kit.exportText;
    const there = await openApp();
    await there.app.kit.importFile(file(text));
    expect(there.app.kit.all.lenses.map((lens) => lens.name)).toEqual(kit.all.lenses.map((lens) => lens.name));
    expect(there.app.kit.all.adapters).toHaveLength(1);
    expect(there.app.kit.bags[0]?.lensIds).toHaveLength(kit.all.lenses.length);
    await there.app.kit.importFile(file(text));
    expect(there.app.kit.all.lenses).toHaveLength(kit.all.lenses.length);
    expect(there.app.kit.bags).toHaveLength(1);
    await until(() => there.app.store.history.canUndo);
    await there.close();
  });

  it('tell lenses apart by content, not by name', async () => {
    const { kit } = app;
    const id = kit.add('lenses', (made) => newLens(made, 'Same name', { shortestMm: 40 }));
    const other = { ...(kit.find('lenses', id) as never as object), shortestMm: 41, longestMm: 41 };
    const lenses = [other as ReturnType<typeof newLens>];
    await kit.importFile(file(writeKitFile({ kit: { bodies: [], lenses, adapters: [] }, bags: [] })));
    // Both are there; which comes first is up to their ids.
    const same = kit.all.lenses.filter((lens) => lens.name === 'Same name').map((lens) => lens.shortestMm);
    expect(same.sort((a, b) => a - b)).toEqual([40, 41]);
  });

  it.each([
    ['{', 'isn’t a complete'],
    ['{"format":"other"}', 'not a Focalis kit file'],
    ['{"format":"focalis-kit","version":99,"kit":{"bodies":[],"lenses":[]}}', 'newer than this Focalis'],
    ['{"format":"focalis-kit","version":3,"kit":{"bodies":[{}],"lenses":[]}}', 'kit.bodies[0].id'],
    ['{"format":"focalis-kit","version":3,"kit":{"bodies":[],"lenses":[],"__proto__":{}}}', 'no place']
  ])('%s is refused with a reason, nothing changed', async (text, reason) => {
    const before = app.kit.all;
    await app.kit.importFile(file(text));
    expect(app.messages.shown?.text).toContain(reason);
    expect(app.kit.all).toEqual(before);
  });
});
