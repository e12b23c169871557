import { webcrypto } from 'node:crypto';
import { createCipheriv, hkdfSync } from 'node:crypto';
import { gzipSync } from 'node:zlib';
import { describe, expect, it } from 'vitest';
import { backOf, fromText, isKey, isPlace, newKey, newPlace, seal, toText, unseal } from './sealed';

const text = JSON.stringify({ job: 'Fernhall', notes: 'ä'.repeat(5000) });

describe('a sealed job', () => {
  it('opens with its key, for its direction and its job, and with nothing else', async () => {
    const key = newKey();
    const sealed = await seal(text, key, 'out', 'job-1');
    expect(sealed.length).toBeLessThan(text.length);
    expect(await unseal(sealed, key, 'out', 'job-1')).toBe(text);
    await expect(unseal(sealed, newKey(), 'out', 'job-1')).rejects.toMatchObject({ name: 'OperationError' });
    await expect(unseal(sealed, key, 'back', 'job-1')).rejects.toMatchObject({ name: 'OperationError' });
    await expect(unseal(sealed, key, 'out', 'job-2')).rejects.toMatchObject({ name: 'OperationError' });
    for (const at of [0, 12, sealed.length - 1]) {
      const altered = Uint8Array.from(sealed);
      altered[at] = (altered[at] ?? 0) ^ 1;
      await expect(unseal(altered, key, 'out', 'job-1')).rejects.toMatchObject({ name: 'OperationError' });
    }
    await expect(unseal(sealed.subarray(0, 20), key, 'out', 'job-1')).rejects.toMatchObject({ name: 'OperationError' });
  });

  it('never twice looks the same, and nothing of the job is to be read in it', async () => {
    const key = newKey();
    const [first, second] = [await seal(text, key, 'out', 'j'), await seal(text, key, 'out', 'j')];
    expect(toText(first)).not.toBe(toText(second));
    expect(Buffer.from(first).toString('latin1')).not.toContain('Fernhall');
  });

  // Another implementation of both standards: Node's OpenSSL.
  it('opens what OpenSSL has sealed, and derives what OpenSSL derives', async () => {
    const key = newKey();
    const iv = webcrypto.getRandomValues(new Uint8Array(12));
    const cipher = createCipheriv('aes-256-gcm', fromText(key), iv);
    cipher.setAAD(Buffer.from('focalis/1/out/job-1'));
    const body = Buffer.concat([cipher.update(gzipSync(text)), cipher.final(), cipher.getAuthTag()]);
    expect(await unseal(Buffer.concat([iv, body]), key, 'out', 'job-1')).toBe(text);
    const derived = (info: string, size: number) =>
      toText(new Uint8Array(hkdfSync('sha256', fromText(key), new Uint8Array(0), info, size)));
    expect(await backOf(key)).toEqual({
      place: derived('focalis/1/back/place', 16),
      key: derived('focalis/1/back/key', 32)
    });
  });

  it('that unpacks without end is not unpacked', async () => {
    const key = newKey();
    const iv = new Uint8Array(12);
    const cipher = createCipheriv('aes-256-gcm', fromText(key), iv);
    cipher.setAAD(Buffer.from('focalis/1/out/j'));
    const bomb = gzipSync(Buffer.alloc(200_000_000));
    expect(bomb.length).toBeLessThan(300_000);
    const body = Buffer.concat([cipher.update(bomb), cipher.final(), cipher.getAuthTag()]);
    await expect(unseal(Buffer.concat([iv, body]), key, 'out', 'j')).rejects.toThrow('larger than any job');
  });

  it('has keys of 256 bits and places of 128, and tells them', () => {
    expect(fromText(newKey())).toHaveLength(32);
    expect(fromText(newPlace())).toHaveLength(16);
    expect([isKey(newKey()), isPlace(newPlace()), isKey(newPlace()), isPlace('../etc'), isPlace('')]).toEqual([
      true,
      true,
      false,
      false,
      false
    ]);
    expect(() => fromText('a+b')).toThrow();
  });
});
