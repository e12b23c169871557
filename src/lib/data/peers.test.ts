import { afterEach, expect, it, vi } from 'vitest';
import { until } from '$lib/testing/app';
import { peersOf, type Peers, type RowKey } from './peers';

const opened: Peers[] = [];
afterEach(() => {
  for (const peers of opened.splice(0)) peers.stop();
  vi.useRealTimers();
});

function open(name: string, read: (keys: readonly RowKey[]) => Promise<void> = () => Promise.resolve()): Peers {
  const peers = peersOf(name, read);
  opened.push(peers);
  return peers;
}
const key = (id: string) => ({ table: 'books', id });

it('what was told while rows could not be read is read later, with them', async () => {
  vi.useFakeTimers({ toFake: ['setTimeout', 'clearTimeout'] });
  const asked: string[][] = [];
  let works = false;
  open('one', (keys) => {
    asked.push(keys.map(({ id }) => id));
    return works ? Promise.resolve() : Promise.reject(new Error('The store is closed.'));
  });
  const other = open('one');
  other.tell([key('a')]);
  await vi.waitUntil(() => asked.length === 1);
  works = true;
  await vi.advanceTimersByTimeAsync(5000);
  expect(asked).toEqual([['a'], ['a']]);
  other.tell([key('b')]);
  await vi.waitUntil(() => asked.length === 3);
  expect(asked[2]).toEqual(['b']);
});

it('what is told while rows are being read waits for its turn', async () => {
  const asked: string[][] = [];
  let finish: () => void = () => undefined;
  open('two', (keys) => {
    asked.push(keys.map(({ id }) => id));
    return asked.length > 1 ? Promise.resolve() : new Promise((resolve) => void (finish = resolve));
  });
  const other = open('two');
  other.tell([key('a')]);
  await until(() => expect(asked).toHaveLength(1));
  const third = new Promise<void>((resolve) => void open('two', () => Promise.resolve(resolve())));
  other.tell([key('b')]);
  await third;
  expect(asked).toEqual([['a']]);
  finish();
  await until(() => expect(asked).toEqual([['a'], ['b']]));
});

it('a tab that stopped reads nothing more', async () => {
  const read = vi.fn(() => Promise.reject(new Error('The store is closed.')));
  const peers = open('three', read);
  open('three').tell([key('a')]);
  await until(() => expect(read).toHaveBeenCalledOnce());
  peers.stop();
  vi.useFakeTimers();
  await vi.advanceTimersByTimeAsync(60_000);
  expect(read).toHaveBeenCalledOnce();
});
