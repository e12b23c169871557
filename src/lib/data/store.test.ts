import Dexie from 'dexie';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { z } from 'zod';
import { until } from '$lib/testing/app';
import { newRow, type Change, type Descriptors } from './rows';
import { Store } from './store.svelte';

// The store knows nothing of photography: here it keeps shelves and books.
type Library = {
  readonly shelves: { readonly name: string };
  readonly books: { readonly title: string; readonly pages: number; readonly lent: { readonly to: string } | null };
};
const tables: Descriptors<Library> = {
  shelves: { schema: z.strictObject({ name: z.string().min(1, 'must not be empty') }), ownedBy: null, noun: 'shelf' },
  books: {
    schema: z.strictObject({
      title: z.string(),
      pages: z.number().max(5000, 'must be at most 5000'),
      lent: z.strictObject({ to: z.string() }).nullable()
    }),
    ownedBy: 'shelves',
    noun: 'book'
  }
};

let count = 0;
let clock = 1000;
const opened: { store: Store<Library>; database: Dexie }[] = [];
let kept: readonly Change[] = [];
let name = '';

function define(): Dexie {
  const database = new Dexie(name);
  database.version(1).stores({ shelves: 'id', books: 'id, owner' });
  return database;
}

/** A tab on the library. */
async function tab(): Promise<{ store: Store<Library>; database: Dexie }> {
  const database = define();
  const store = new Store<Library>({
    database,
    descriptors: tables,
    now: () => ++clock,
    keep: (changes) => void (kept = changes),
    onCleared: () => undefined
  });
  opened.push({ store, database });
  await store.atHand.load();
  await store.open('s');
  return { store, database };
}

const book = (title: string, pages = 100) => ({ title, pages, lent: null });
const inStore = async (database: Dexie, id = 'b') => (await database.table('books').get(id))?.value as unknown;

let store: Store<Library>;
let database: Dexie;

beforeEach(async () => {
  name = `library-${++count}`;
  const seed = define();
  await seed.table('shelves').put(newRow('s', { name: 'Shelf' }));
  await seed
    .table('books')
    .bulkPut([
      newRow('b', book('One'), { owner: 's', position: 0 }),
      newRow('c', book('Two'), { owner: 's', position: 1 })
    ]);
  seed.close();
  ({ store, database } = await tab());
});
afterEach(async () => {
  for (const item of opened.splice(0)) {
    item.store.stop();
    item.database.close();
  }
  await Dexie.delete(name);
  vi.restoreAllMocks();
});

const title = (id = 'b', of = store) => of.table('books').get(id)?.value.title;
const rename = (to: string, id = 'b', options = {}, of = store) =>
  of.edit(`Renamed to ${to}`, (draft) => draft.change('books', id, (value) => ({ ...value, title: to })), options);
const setPages = (pages: number, id = 'b', of = store) =>
  of.edit('Pages', (draft) => draft.change('books', id, (value) => ({ ...value, pages })));

describe('an edit', () => {
  it('is shown at once and stored soon, and the row next to it stays the very same', async () => {
    const other = store.table('books').get('c');
    rename('New');
    expect(title()).toBe('New');
    expect(store.saving.kind).toBe('saving');
    await store.flush();
    expect(store.saving.kind).toBe('saved');
    expect(await inStore(database)).toMatchObject({ title: 'New' });
    expect(store.table('books').get('c')).toBe(other);
  });

  it('keeps its identity when the store confirms it', async () => {
    rename('New');
    const shown = store.table('books').get('b')?.value;
    await store.flush();
    expect(store.table('books').get('b')?.value).toBe(shown);
  });

  it('goes over several tables together, and is refused whole when one row would be invalid', () => {
    const both = (name: string) =>
      store.edit('Both', (draft) => {
        draft.change('books', 'b', (value) => ({ ...value, title: 'Changed' }));
        draft.change('shelves', 's', () => ({ name }));
      });
    expect(both('')).toEqual({ ok: false, field: 'name', reason: 'Must not be empty.' });
    expect(title()).toBe('One');
    expect(both('Top').ok).toBe(true);
    expect(store.table('shelves').get('s')?.value.name).toBe('Top');
    expect(setPages(9999)).toMatchObject({ ok: false, field: 'pages', reason: 'Must be at most 5000.' });
  });

  it('that changes nothing is no step', () => {
    rename('One');
    expect(store.history.canUndo).toBe(false);
  });
});

describe('what is being typed', () => {
  it('is shown and not stored until it is meant, and is then one step', async () => {
    rename('N', 'b', { hold: true });
    rename('Ne', 'b', { hold: true });
    expect(title()).toBe('Ne');
    await store.flush();
    expect(await inStore(database)).toMatchObject({ title: 'One' });
    expect(store.history.canUndo).toBe(false);
    rename('New');
    await store.flush();
    expect(await inStore(database)).toMatchObject({ title: 'New' });
    await store.undo();
    await store.undo();
    expect(title()).toBe('One');
    expect(store.history.canUndo).toBe(false);
  });

  it('dropped leaves everything as it was, with what another tab has stored meanwhile', async () => {
    rename('Typing', 'b', { hold: true });
    const other = await tab();
    setPages(300, 'b', other.store);
    await other.store.flush();
    await until(() => expect(store.table('books').get('b')?.value.pages).toBe(300));
    expect(title()).toBe('Typing');
    store.dropHeld();
    expect(store.table('books').get('b')?.value).toEqual(book('One', 300));
    expect(store.unconfirmed).toEqual([]);
  });

  it('typed and typed back is no step', () => {
    rename('Typing', 'b', { hold: true });
    rename('One', 'b', { hold: true });
    store.keepHeld();
    expect(store.history.canUndo).toBe(false);
  });
});

describe('undo', () => {
  it('spans edits of all tables and moves only when it is stored', async () => {
    rename('First');
    store.edit('Gone', (draft) => draft.remove('books', 'c'));
    expect(title('c')).toBeUndefined();
    expect(await store.undo()).toMatchObject({ kind: 'done', partly: false });
    expect(title('c')).toBe('Two');
    await store.undo();
    expect(title()).toBe('One');
    expect(store.history.canUndo).toBe(false);
    await store.redo();
    await store.redo();
    expect([title(), title('c')]).toEqual(['First', undefined]);
    expect(await inStore(database, 'c')).toBeUndefined();
  });

  it('that cannot be stored changes nothing and can be tried again', async () => {
    rename('New');
    await store.flush();
    const failing = vi.spyOn(database, 'transaction').mockRejectedValueOnce(new Error('disk'));
    expect(await store.undo()).toMatchObject({ kind: 'failed' });
    expect(title()).toBe('New');
    expect(store.history.canUndo).toBe(true);
    expect(store.history.canRedo).toBe(false);
    failing.mockRestore();
    expect(await store.undo()).toMatchObject({ kind: 'done' });
    expect(title()).toBe('One');
  });

  it('of a named step takes back that one, whatever has been done since', async () => {
    const removed = store.edit('Two removed', (draft) => draft.remove('books', 'c'));
    rename('Later');
    await store.takeBack(removed.ok ? (removed.step ?? -1) : -1);
    expect([title(), title('c')]).toEqual(['Later', 'Two']);
    await store.undo();
    expect([title(), title('c')]).toEqual(['One', 'Two']);
  });

  it('leaves what another tab wrote later in that very field, and says so', async () => {
    rename('Mine');
    await store.flush();
    const other = await tab();
    rename('Theirs', 'b', {}, other.store);
    await other.store.flush();
    expect(await store.undo()).toMatchObject({ kind: 'done', partly: true });
    expect(title()).toBe('Theirs');
    expect(await inStore(database)).toMatchObject({ title: 'Theirs' });
  });

  it('takes back one field of a row and leaves another tab’s change of another field', async () => {
    rename('Mine');
    await store.flush();
    const other = await tab();
    setPages(7, 'b', other.store);
    await other.store.flush();
    expect(await store.undo()).toMatchObject({ kind: 'done', partly: false });
    expect(await inStore(database)).toEqual(book('One', 7));
  });

  it('takes a gesture as one step, and two visits of one field as two', async () => {
    rename('A', 'b', { gesture: 'typing' });
    rename('AB', 'b', { gesture: 'typing' });
    store.history.endGesture();
    rename('ABC', 'b', { gesture: 'typing' });
    await store.undo();
    expect(title()).toBe('AB');
    await store.undo();
    expect(title()).toBe('One');
    rename('X', 'b', { gesture: 'drag' });
    rename('One', 'b', { gesture: 'drag' });
    expect(store.history.canUndo).toBe(false);
  });
});

describe('a store that fails', () => {
  /** Every write fails until it is put right. */
  function fail(error: Error): () => void {
    const original = database.transaction.bind(database) as (...rest: unknown[]) => unknown;
    let failing = true;
    vi.spyOn(database, 'transaction').mockImplementation(((...rest: unknown[]) =>
      failing ? Promise.reject(error) : original(...rest)) as never);
    return () => (failing = false);
  }

  it('says so, keeps what was typed, and stores everything when it can again, in order', async () => {
    const mend = fail(new DOMException('full', 'QuotaExceededError'));
    rename('Unsaved');
    expect(await store.flush()).toBe(false);
    expect(store.saving).toMatchObject({ kind: 'failed' });
    expect(title()).toBe('Unsaved');
    expect(kept).toMatchObject([
      { id: 'b', before: { value: { title: 'One' } }, after: { value: { title: 'Unsaved' } } }
    ]);
    setPages(42, 'c');
    expect(kept).toHaveLength(2);
    mend();
    expect(await store.flush()).toBe(true);
    expect(store.saving.kind).toBe('saved');
    expect(await inStore(database)).toMatchObject({ title: 'Unsaved' });
    expect(await inStore(database, 'c')).toMatchObject({ pages: 42 });
    expect(kept).toEqual([]);
  });

  it('is tried again by itself', async () => {
    const mend = fail(new Error('busy'));
    rename('Later');
    await store.flush();
    mend();
    await until(() => expect(store.saving.kind).toBe('saved'));
    expect(await inStore(database)).toMatchObject({ title: 'Later' });
  });

  it('aborted at the commit stores nothing of it', async () => {
    const original = database.table.bind(database);
    const spy = vi.spyOn(database, 'table').mockImplementation(((table: string) => {
      const real = original(table);
      return table !== 'books'
        ? real
        : new Proxy(real, {
            get: (target, key: keyof typeof real) =>
              key === 'bulkDelete'
                ? () => Dexie.currentTransaction.abort()
                : typeof target[key] === 'function'
                  ? (target[key] as () => unknown).bind(target)
                  : target[key]
          });
    }) as never);
    rename('Half');
    expect(await store.flush()).toBe(false);
    spy.mockRestore();
    expect(await inStore(database)).toMatchObject({ title: 'One' });
    expect(store.saving.kind).toBe('failed');
    expect(await store.flush()).toBe(true);
    expect(await inStore(database)).toMatchObject({ title: 'Half' });
  });
});

describe('two tabs', () => {
  it('keep what each changes in one row, and show it to each other', async () => {
    const other = await tab();
    rename('Mine');
    setPages(9, 'b', other.store);
    await Promise.all([store.flush(), other.store.flush()]);
    const both = book('Mine', 9);
    await until(() => {
      expect(store.table('books').get('b')?.value).toEqual(both);
      expect(other.store.table('books').get('b')?.value).toEqual(both);
    });
    expect(await inStore(database)).toEqual(both);
  });

  it('add and remove: an edit outlives a removal elsewhere', async () => {
    const other = await tab();
    other.store.edit('Gone', (draft) => draft.remove('books', 'b'));
    await other.store.flush();
    await until(() => expect(title()).toBeUndefined());
    other.store.edit('New', (draft) => draft.put('books', newRow('d', book('Three'), { owner: 's', position: 2 })));
    await other.store.flush();
    await until(() => expect(title('d')).toBe('Three'));
    // Edited here before the removal is heard of.
    store.edit('Late', (draft) => draft.change('books', 'd', (value) => ({ ...value, pages: 1 })));
    other.store.edit('Gone too', (draft) => draft.remove('books', 'd'));
    await other.store.flush();
    await store.flush();
    expect(await inStore(database, 'd')).toEqual(book('Three', 1));
    await until(() => expect(title('d', other.store)).toBe('Three'));
  });

  it('an owner erased elsewhere: edits find no home, leave no orphan, and come back with it', async () => {
    const other = await tab();
    await other.database.transaction('rw', ['shelves', 'books'], async () => {
      await other.database.table('shelves').delete('s');
      await other.database.table('books').clear();
    });
    other.store.erased([
      { table: 'shelves', id: 's' },
      { table: 'books', id: 'b' },
      { table: 'books', id: 'c' }
    ]);
    await until(() => expect(store.atHand.erasedOwner).not.toBeNull());
    expect(title()).toBe('One');
    rename('Typed after all');
    await store.flush();
    expect(await database.table('books').count()).toBe(0);
    expect(store.homeless).toHaveLength(1);
    expect(kept).toHaveLength(1);
    await store.bringBack([{ table: 'shelves', id: 's', before: null, after: newRow('s', { name: 'Shelf' }) }]);
    await store.flush();
    expect(await inStore(database)).toMatchObject({ title: 'Typed after all' });
    expect(await inStore(database, 'c')).toMatchObject({ title: 'Two' });
    expect(store.homeless).toEqual([]);
    expect(kept).toEqual([]);
  });

  it('sees on coming back what nobody told it of', async () => {
    const silent = define();
    await silent.table('books').update('b', { value: book('Quietly'), updatedAt: 99_999 });
    silent.close();
    expect(title()).toBe('One');
    await store.atHand.refreshAll();
    expect(title()).toBe('Quietly');
  });
});

describe('a damaged row', () => {
  it('is set aside and named; everything else works, and it is left as it is', async () => {
    const damaged = { ...newRow('x', { name: 'Broken', pages: 'many' }), owner: 's' };
    await database.table('books').put(damaged);
    await database.table('books').put({ id: 'y', owner: 's' });
    const other = await tab();
    expect(other.store.table('books').list.map((row) => row.id)).toEqual(['b', 'c']);
    expect(other.store.atHand.damaged).toMatchObject([
      { table: 'books', id: 'x', noun: 'book', name: 'Broken', raw: damaged },
      { table: 'books', id: 'y', noun: 'book', name: '' }
    ]);
    rename('Fine', 'b', {}, other.store);
    await other.store.flush();
    expect(await database.table('books').get('x')).toEqual(damaged);
  });
});

it('has only the open owner’s rows at hand', async () => {
  await database.table('shelves').put(newRow('t', { name: 'Other' }));
  await database.table('books').put(newRow('z', book('Elsewhere'), { owner: 't' }));
  await store.atHand.load();
  expect(title('z')).toBeUndefined();
  await store.open('t');
  expect([title('z'), title('b')]).toEqual(['Elsewhere', undefined]);
  await store.open(null);
  expect(store.table('books').list).toEqual([]);
});
