import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { MemoryStorage } from '$lib/testing/app';
import { defineDatabase } from './database';
import { safeStorage } from './storage';
import { Thumbnails } from './thumbnails';

let count = 0;
const define = () =>
  defineDatabase(
    `thumbnails-${++count}`,
    safeStorage(() => new MemoryStorage())
  );
let database = define();
const picture = () => new Blob(['x']);

beforeEach(() => void (database = define()));
afterEach(async () => {
  vi.restoreAllMocks();
  await database.delete();
});

describe('kept thumbnails', () => {
  it('come back only if they were drawn from the same', async () => {
    const thumbnails = new Thumbnails(database);
    await thumbnails.keep({ key: 'a', drawnFrom: 'one', picture: picture() });
    expect(await thumbnails.kept('a', 'one')).not.toBeNull();
    expect(await thumbnails.kept('a', 'two')).toBeNull();
    expect(await thumbnails.kept('b', 'one')).toBeNull();
  });

  it('make room for new ones, never at the cost of the one just kept', async () => {
    const table = database.table('thumbnails');
    await table.bulkPut(Array.from({ length: 702 }, (_, i) => ({ key: `k${i}`, drawnFrom: '', picture: '' })));
    await new Thumbnails(database).keep({ key: 'a-new', drawnFrom: '', picture: picture() });
    expect(await table.count()).toBe(700);
    expect(await table.get('a-new')).toBeDefined();
  });

  it('that cannot be kept are done without', async () => {
    vi.spyOn(database, 'transaction').mockRejectedValue(new DOMException('full', 'QuotaExceededError'));
    await expect(
      new Thumbnails(database).keep({ key: 'a', drawnFrom: '', picture: picture() })
    ).resolves.toBeUndefined();
  });
});
