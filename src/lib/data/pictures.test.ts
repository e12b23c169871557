import 'fake-indexeddb/auto';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { openDatabase, type FocalisDatabase } from './database';
import { keepPicture, readPicture } from './pictures';

let database: FocalisDatabase;
beforeEach(() => void (database = openDatabase('pictures')));
afterEach(() => database.delete());

const png = new Blob(['png'], { type: 'image/png' });

describe('small pictures', () => {
  it('are kept under their name, the newest in place of the one before', async () => {
    await keepPicture(database, { key: 'strip-a', drawnFrom: 'once', png });
    await keepPicture(database, { key: 'strip-a', drawnFrom: 'again', png });
    expect((await readPicture(database, 'strip-a'))?.drawnFrom).toBe('again');
    expect(await database.pictures.count()).toBe(1);
    expect(await readPicture(database, 'strip-b')).toBeUndefined();
  });

  it('are at most four hundred, and the one just kept is never the one that goes', async () => {
    await database.pictures.bulkPut(
      Array.from({ length: 400 }, (_, index) => ({ key: `strip-${1000 + index}`, drawnFrom: '', png }))
    );
    // First in the order of names.
    await keepPicture(database, { key: 'card-first', drawnFrom: 'new', png });
    expect(await database.pictures.count()).toBe(400);
    expect((await readPicture(database, 'card-first'))?.drawnFrom).toBe('new');
  });
});
