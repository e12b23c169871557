import { expect, it } from 'vitest';
import { OpenByAddress, rateLimit, refusal } from './api';

it('gives each address its places and all together theirs, and takes each back once', () => {
  const open = new OpenByAddress({ each: 2, all: 3 });
  const first = open.take('a');
  expect(open.take('a')).not.toBeNull();
  expect(open.take('a')).toBeNull();
  expect(open.take('b')).not.toBeNull();
  expect(open.take('c')).toBeNull();
  first?.();
  first?.();
  expect(open.take('c')).not.toBeNull();
  expect(open.take('a')).toBeNull();
});

it('refuses an address that asks too often, with how long to wait, and no other', async () => {
  const tooOften = rateLimit('test', 2, 60);
  expect(await tooOften('a')).toBeNull();
  expect(await tooOften('a')).toBeNull();
  const refused = await tooOften('a');
  expect(refused?.status).toBe(429);
  expect(Number(refused?.headers.get('retry-after'))).toBeGreaterThan(0);
  expect(await tooOften('b')).toBeNull();
});

it('tells every error in one shape', async () => {
  const response = refusal(400, 'must be a number', { field: 'mm' });
  expect(response.headers.get('content-type')).toContain('application/json');
  expect(await response.json()).toEqual({ field: 'mm', reason: 'must be a number' });
});
