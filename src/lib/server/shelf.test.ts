import { expect, it } from 'vitest';
import { readBody } from './body';
import { Shelf } from './shelf';

const bytes = (size: number) => new Uint8Array(size);
const limits = { keptMs: 1000, itemBytes: 10, items: 3, bytes: 25 };

it('keeps an item until it has arrived or its time is over, however often it is asked for', () => {
  let now = 0;
  const shelf = new Shelf(limits, () => now);
  expect(shelf.put('a', bytes(4))).toBe('kept');
  expect(shelf.get('a')).toHaveLength(4);
  expect(shelf.get('a')).toHaveLength(4);
  expect(shelf.remove('a')).toBe(true);
  expect(shelf.remove('a')).toBe(false);
  expect(shelf.get('a')).toBeNull();
  shelf.put('b', bytes(1));
  now = 999;
  expect(shelf.get('b')).not.toBeNull();
  now = 1000;
  expect(shelf.get('b')).toBeNull();
});

it('takes nothing too large, no more than it has room for, and makes room as time goes by', () => {
  let now = 0;
  const shelf = new Shelf(limits, () => now);
  expect(shelf.put('a', bytes(11))).toBe('tooLarge');
  expect(['a', 'b'].map((id) => shelf.put(id, bytes(10)))).toEqual(['kept', 'kept']);
  expect(shelf.put('c', bytes(6))).toBe('full');
  expect(shelf.put('c', bytes(5))).toBe('kept');
  expect(shelf.put('d', bytes(0))).toBe('full');
  // In place of an earlier one of the same name.
  expect(shelf.put('b', bytes(9))).toBe('kept');
  expect(shelf.get('b')).toHaveLength(9);
  now = 1000;
  expect(shelf.put('d', bytes(10))).toBe('kept');
});

it('reads a body no further than its limit, said or not', async () => {
  const request = (body: BodyInit, headers = {}) =>
    new Request('http://x/', { method: 'PUT', body, headers, duplex: 'half' } as RequestInit);
  expect(await readBody(request(bytes(10)), 10)).toHaveLength(10);
  expect(await readBody(request(bytes(11)), 10)).toBeNull();
  let pulled = 0;
  const endless = new ReadableStream({
    pull: (controller) => {
      pulled++;
      controller.enqueue(bytes(4));
    }
  });
  expect(await readBody(request(endless), 10)).toBeNull();
  expect(pulled).toBeLessThan(8);
  expect(await readBody(new Request('http://x/'), 10)).toHaveLength(0);
});
