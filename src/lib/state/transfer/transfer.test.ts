/** From the desk to a phone and home again: two applications with stores of their own, and the server's shelf between. */
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { asPlanned } from '$core/setup/schedule';
import { PickupRepository } from '$lib/server/pickupRepository';
import { openApp, weddingId, type OpenApp } from '$lib/testing/app';

let shelf: PickupRepository;
let desk: OpenApp;
let phone: OpenApp;
/** The network is down. */
let down = false;
let now = 0;

/** What the route does, over the same shelf. */
const network: typeof fetch = async (asked, options) => {
  if (down) throw new TypeError('Failed to fetch');
  const place = String(asked).replace('/api/pickup/', '');
  switch (options?.method ?? 'GET') {
    case 'PUT': {
      const bytes = new Uint8Array(options?.body as Uint8Array<ArrayBuffer>);
      const kept = await shelf.put(place, bytes, 'desk');
      return kept === 'kept'
        ? new Response(null, { status: 204 })
        : Response.json({ field: '', reason: 'Full.' }, { status: 503 });
    }
    case 'POST': {
      const bytes = await shelf.get(place);
      return bytes ? new Response(bytes) : new Response(null, { status: 404 });
    }
    case 'DELETE':
      return new Response(null, { status: (await shelf.remove(place)) ? 204 : 404 });
    default:
      return Response.json({ waits: await shelf.has(place) });
  }
};

beforeEach(async () => {
  down = false;
  now = 0;
  shelf = new PickupRepository(undefined, () => now);
  desk = await openApp({ fetch: network });
  phone = await openApp({ fetch: network });
});
afterEach(async () => {
  await desk.close();
  await phone.close();
});

const sent = async () => {
  const waiting = await desk.app.travel.send();
  if (!waiting) throw new Error('not sent');
  return waiting;
};
const placeAndSecret = ({ place, secret }: { place: string; secret: string }) => [place, secret] as const;
/** Fetched and taken, whatever it changes. */
async function collected(opened: OpenApp, { place, secret }: { readonly place: string; readonly secret: string }) {
  const arrival = await opened.app.travel.fetchJob(place, secret);
  return arrival && opened.app.travel.accept(arrival);
}
const names = (opened: OpenApp) => opened.app.open.rows.map((row) => row.setup.name);
const message = (opened: OpenApp) => opened.app.messages.shown?.text ?? '';
const done = { doneAt: '2027-06-12T13:52:00.000Z', verdict: 'soft', note: 'Wren ran.' } as const;

describe('a job taken along', () => {
  it('goes to the phone, is adjusted there, and comes home beside what was changed at the desk', async () => {
    desk.app.open.edit('demo-rings', 'Name', (draft) => void (draft.name = 'The rings'));
    const waiting = await sent();
    expect(await collected(phone, waiting)).toBe(`/day/${weddingId}`);
    expect(names(phone)).toContain('The rings');
    expect(await desk.app.travel.waits(waiting.place)).toBe(false);

    phone.app.day.taken(['demo-family-steps'], 'Done', { ...done, different: { ...asPlanned, distanceMm: 5800 } });
    desk.app.open.edit('demo-family-steps', 'Name', (draft) => void (draft.name = 'Family, at last'));
    expect(await phone.app.travel.sendBack()).toBe(true);
    expect(await desk.app.travel.bringBack()).toBe(true);
    expect(desk.app.open.row('demo-family-steps')?.setup).toMatchObject({
      name: 'Family, at last',
      taken: { ...done, different: { distanceMm: 5800 } }
    });
    expect(names(desk)).toHaveLength(13);
    expect(message(desk)).toContain('Received: 1 setup.');

    // Once more: what has come is there once, and an edit made here since stays.
    desk.app.day.taken(['demo-family-steps'], 'Note', { note: 'Wren ran, twice.' });
    await phone.app.travel.sendBack();
    await desk.app.travel.bringBack();
    expect(names(desk)).toHaveLength(13);
    expect(desk.app.open.row('demo-family-steps')?.setup.taken.note).toBe('Wren ran, twice.');
    await desk.app.step('undo');
  });

  it('brings lenses along, under whatever name this device has them', async () => {
    const own = { ...desk.app.open.kit.lenses[0], id: 'own-lens', name: 'A lens of my own' } as never;
    desk.app.store.edit('Lens', (draft) =>
      draft.put('lenses', { id: 'own-lens', owner: null, position: 0, updatedAt: 0, removedAt: null, value: own })
    );
    desk.app.open.edit('demo-rings', 'Lens', (draft) => void (draft.camera.lensId = 'own-lens'));
    const waiting = await sent();
    await collected(phone, waiting);
    const held = phone.app.open.row('demo-rings')?.setup.camera.lensId;
    expect(phone.app.open.kit.lenses.find((lens) => lens.id === held)?.name).toBe('A lens of my own');
    await phone.app.travel.sendBack();
    await desk.app.travel.bringBack();
    expect(desk.app.open.row('demo-rings')?.setup.camera.lensId).toBe('own-lens');
    expect(desk.app.open.kit.lenses.filter((lens) => lens.name === 'A lens of my own')).toHaveLength(1);
  });

  it('is refused late, twice, altered, or by another key, and nothing is changed', async () => {
    const waiting = await sent();
    const before = JSON.stringify(phone.app.open.rows.map((row) => row.setup));
    const refused = async (place: string, secret: string, words: string) => {
      expect(await collected(phone, { place, secret })).toBeNull();
      expect(message(phone)).toContain(words);
      expect(JSON.stringify(phone.app.open.rows.map((row) => row.setup))).toBe(before);
    };
    const [key = '', jobId = ''] = waiting.secret.split('.');
    await refused(waiting.place, `${key}.another-job`, 'What arrived is not what was sent');
    await refused(waiting.place, key.slice(2), 'Scan the code again');
    const bytes = (await shelf.get(waiting.place)) ?? new Uint8Array();
    await shelf.put(
      waiting.place,
      bytes.map((byte, index) => (index === 40 ? byte ^ 1 : byte)),
      'desk'
    );
    await refused(waiting.place, waiting.secret, 'What arrived is not what was sent');
    await shelf.put(waiting.place, bytes, 'desk');
    down = true;
    await refused(waiting.place, waiting.secret, 'You’re offline');
    down = false;
    expect(await collected(phone, { ...waiting, secret: `${key}.${jobId}` })).not.toBeNull();
    expect(await collected(phone, waiting)).toBeNull();
    expect(message(phone)).toContain('Nothing to collect');
    const late = await sent();
    now = 10 * 60_000;
    expect(await collected(phone, late)).toBeNull();
  });

  it('cannot be received before it was sent back, nor sent back where it did not come', async () => {
    await sent();
    expect(await desk.app.travel.bringBack()).toBeNull();
    expect(message(desk)).toContain('Nothing has been sent back');
    expect(await phone.app.travel.sendBack()).toBeNull();
    expect(message(phone)).toContain('did not come from another device');
  });

  it('brings home an order changed on the phone, and as shot with a lens of the desk’s own', async () => {
    const { place, secret } = await sent();
    await collected(phone, { place, secret });
    const ids = phone.app.day.items.map((item) => item.id);
    const [a = '', b = '', ...rest] = ids;
    phone.app.day.reorder([b, a, ...rest]);
    const lens = { lensId: 'lens-135', adapterIds: [], focalLengthMm: 135 };
    phone.app.day.taken(['demo-rings'], 'Lens', { different: { ...asPlanned, lens } });
    await phone.app.travel.sendBack();
    await desk.app.travel.bringBack();
    expect(desk.app.day.items.map((item) => item.id)).toEqual([b, a, ...rest]);
    expect(desk.app.open.row('demo-rings')?.setup.taken.different.lens).toEqual(lens);
    await desk.app.step('undo');
    expect(desk.app.day.items.map((item) => item.id)).toEqual(ids);
  });

  it('is refused where another job holds rows of the same names', async () => {
    const waiting = await sent();
    const row = await phone.database.table('setups').get('demo-rings');
    await phone.database.table('setups').put({ ...row, owner: 'another' });
    expect(await collected(phone, waiting)).toBeNull();
    expect(message(phone)).toContain('Another job here has parts of it');
    expect((await phone.database.table('setups').get('demo-rings')).owner).toBe('another');
  });

  it('comes a second time as it is at the desk now, and what was done on the phone stays', async () => {
    const first = await sent();
    await collected(phone, first);
    phone.app.day.taken(['demo-rings'], 'Done', done);
    desk.app.open.edit('demo-rings', 'Notes', (draft) => void (draft.notes = 'On the wet leaf.'));
    const second = await sent();
    await collected(phone, second);
    expect(phone.app.open.row('demo-rings')?.setup).toMatchObject({ notes: 'On the wet leaf.', taken: done });
  });

  it('takes nothing away unasked: what would change is named first, and the job as it was is kept', async () => {
    const first = await sent();
    await collected(phone, first);
    phone.app.open.edit('demo-rings', 'Notes', (draft) => void (draft.notes = 'Mine, typed on the phone.'));
    const rings = phone.app.open.row('demo-rings');
    if (!rings) throw new Error('no such setup');
    phone.app.setups.duplicate(rings);
    expect(names(phone)).toHaveLength(14);
    // At the desk a setup goes, and another is renamed; the phone has another job open meanwhile.
    const cake = desk.app.open.row('demo-west-door');
    if (!cake) throw new Error('no such setup');
    desk.app.setups.remove(cake);
    desk.app.open.edit('demo-family-steps', 'Name', (draft) => void (draft.name = 'Family, at last'));
    await phone.app.openJob(await phone.app.jobs.start());
    const arrival = await phone.app.travel.fetchJob(...placeAndSecret(await sent()));
    if (!arrival) throw new Error(message(phone));
    expect(arrival.removed).toEqual(['West door']);
    expect(arrival.replaced).toEqual(['Family on the steps']);
    await phone.app.travel.accept(arrival);
    expect(names(phone)).toHaveLength(13);
    expect(phone.app.open.row('demo-rings')?.setup.notes).toBe('Mine, typed on the phone.');
    expect(message(phone)).toContain('kept for thirty days');
    // Beside it the job as it was: restored, it has everything.
    const kept = phone.app.jobs.removed.find((row) => row.value.name.includes('before'));
    if (!kept) throw new Error('not kept');
    const rows = await phone.database.table('setups').where('owner').equals(kept.id).toArray();
    expect(rows).toHaveLength(14);
    expect(rows.map((row: { value: { name: string } }) => row.value.name)).toContain('West door');
  });

  it('by a link made up about a known job removes nothing of what is here', async () => {
    phone.app.open.edit('demo-rings', 'Notes', (draft) => void (draft.notes = 'Mine.'));
    for (const row of desk.app.open.rows.slice(1)) desk.app.setups.remove(row);
    const arrival = await phone.app.travel.fetchJob(...placeAndSecret(await sent()));
    if (!arrival) throw new Error(message(phone));
    expect(arrival.removed).toEqual([]);
    await phone.app.travel.accept(arrival);
    expect(names(phone)).toHaveLength(13);
    expect(phone.app.open.row('demo-rings')?.setup.notes).toBe('Mine.');
  });
});
