import { afterEach, expect, it, vi } from 'vitest';
import { sha256Hex } from './hash';

afterEach(() => vi.unstubAllGlobals());

it('is SHA-256, with the browser’s arithmetic and without', async () => {
  // FIPS 180-4, the worked example "abc".
  const abc = 'ba7816bf8f01cfea414140de5dae2223b00361a396177a9cb410ff61f20015ad';
  const bytes = new Uint8Array([97, 98, 99]);
  expect(await sha256Hex(bytes)).toBe(abc);
  vi.stubGlobal('crypto', {});
  expect(await sha256Hex(bytes)).toBe(abc);
});
