import { expect, it } from 'vitest';
import { FairQueue } from './fairQueue';

const limits = { atOnce: 1, each: 4, all: 30, waitMs: 60_000 };
/** Work that ends when it is told to. */
function job() {
  let end = (): void => undefined;
  const done = new Promise<void>((resolve) => (end = resolve));
  return { work: () => done, end };
}

it('lets strangers by between the heavy requests of one address', async () => {
  const queue = new FairQueue(limits);
  const order: string[] = [];
  const heavy = Array.from({ length: 5 }, () => job());
  const asked = heavy.map(({ work }, index) =>
    queue.run('heavy', async () => {
      order.push(`heavy ${index}`);
      await work();
    })
  );
  const strangers = Array.from({ length: 20 }, (_, index) =>
    queue.run(`stranger ${index}`, async () => void order.push(`stranger ${index}`))
  );
  expect(order).toEqual(['heavy 0']);
  heavy[0]?.end();
  await Promise.all(strangers);
  // All of them came after one heavy request, before the second.
  expect(order.slice(0, 21)).toEqual(['heavy 0', ...strangers.map((_, index) => `stranger ${index}`)]);
  for (const { end } of heavy) end();
  await Promise.all(asked);
  expect(order.slice(21)).toEqual(['heavy 1', 'heavy 2', 'heavy 3', 'heavy 4']);
});

it('refuses an address that has enough waiting, everybody when there is no room, and what has waited too long', async () => {
  const queue = new FairQueue({ atOnce: 1, each: 2, all: 3, waitMs: 20 });
  const first = job();
  const running = queue.run('a', first.work);
  const waiting = ['a', 'a', 'b'].map((address) => queue.run(address, () => Promise.resolve('done')));
  expect(await queue.run('a', () => Promise.resolve('done'))).toBe('tooMany');
  expect(await queue.run('c', () => Promise.resolve('done'))).toBe('full');
  expect(await Promise.all(waiting)).toEqual(['waitedTooLong', 'waitedTooLong', 'waitedTooLong']);
  first.end();
  await running;
  expect(await queue.run('c', () => Promise.resolve('done'))).toBe('done');
});

it('goes on after work that fails', async () => {
  const queue = new FairQueue(limits);
  const failing = queue.run('a', () => Promise.reject(new Error('no')));
  const after = queue.run('a', () => Promise.resolve('done'));
  await expect(failing).rejects.toThrow('no');
  expect(await after).toBe('done');
});
