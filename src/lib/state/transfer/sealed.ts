/**
 * A job sealed for the way to another device: compressed, then AES-256-GCM (NIST SP 800-38D) with a key that only the two
 * devices have. The direction and the job are authenticated with it, so that nothing can be passed off as something else.
 * The way back has a key and a place of its own, derived by HKDF with SHA-256 (RFC 5869).
 */
import { base64urlnopad } from '@scure/base';
import { Gunzip, gzip } from 'fflate';

export type Direction = 'out' | 'back';

/** Bytes of a key; of a place on the server, 128 bits; of the nonce that stands before each ciphertext. */
const keyBytes = 32;
const placeBytes = 16;
const nonceBytes = 12;

/** Largest job once it is unpacked, bytes: what a job file may have. */
const mostUnpacked = 160_000_000;
/** Unpacked so much at a time, bytes. */
const pieceBytes = 65_536;

/** Whether this page may encrypt at all: browsers ask for https, or this machine itself. */
export const canSeal = (): boolean => typeof crypto !== 'undefined' && 'subtle' in crypto;

export const toText = (bytes: Uint8Array): string => base64urlnopad.encode(bytes);

/** @throws when it is not base64url */
export const fromText = (text: string): Uint8Array<ArrayBuffer> => Uint8Array.from(base64urlnopad.decode(text));

const random = (count: number) => crypto.getRandomValues(new Uint8Array(count));
export const newKey = (): string => toText(random(keyBytes));
export const newPlace = (): string => toText(random(placeBytes));

/** Whether a text is a key, or a place. */
export const isKey = (text: string): boolean => new RegExp(`^[\\w-]{${Math.ceil((keyBytes * 4) / 3)}}$`).test(text);
export const isPlace = (text: string): boolean => new RegExp(`^[\\w-]{${Math.ceil((placeBytes * 4) / 3)}}$`).test(text);

const aboutOf = (direction: Direction, jobId: string) => new TextEncoder().encode(`focalis/1/${direction}/${jobId}`);

const imported = (key: string) =>
  crypto.subtle.importKey('raw', fromText(key), 'AES-GCM', false, ['encrypt', 'decrypt']);

/** Where the way back goes, and its key: both from the key of the way out. */
export async function backOf(key: string): Promise<{ readonly place: string; readonly key: string }> {
  const material = await crypto.subtle.importKey('raw', fromText(key), 'HKDF', false, ['deriveBits']);
  const derived = async (info: string, bytes: number) => {
    const params = { name: 'HKDF', hash: 'SHA-256', salt: new Uint8Array(0), info: new TextEncoder().encode(info) };
    return toText(new Uint8Array(await crypto.subtle.deriveBits(params, material, bytes * 8)));
  };
  return {
    place: await derived('focalis/1/back/place', placeBytes),
    key: await derived('focalis/1/back/key', keyBytes)
  };
}

const packed = (text: string): Promise<Uint8Array> =>
  new Promise((resolve, reject) =>
    gzip(new TextEncoder().encode(text), { level: 6 }, (error, bytes) => (error ? reject(error) : resolve(bytes)))
  );

/** Unpacks piece by piece, so that what claims to be small cannot grow without end. */
function unpacked(bytes: Uint8Array): string {
  const parts: Uint8Array[] = [];
  let size = 0;
  const stream = new Gunzip((part) => {
    size += part.length;
    if (size > mostUnpacked) throw new Error('It is larger than any job.');
    parts.push(part);
  });
  for (let at = 0; at < bytes.length; at += pieceBytes) {
    stream.push(bytes.subarray(at, at + pieceBytes), at + pieceBytes >= bytes.length);
  }
  const decoder = new TextDecoder();
  return parts.map((part) => decoder.decode(part, { stream: true })).join('') + decoder.decode();
}

/** @throws where nothing can be sealed */
export async function seal(
  text: string,
  key: string,
  direction: Direction,
  jobId: string
): Promise<Uint8Array<ArrayBuffer>> {
  const iv = random(nonceBytes);
  const algorithm = { name: 'AES-GCM', iv, additionalData: aboutOf(direction, jobId) };
  const plain = Uint8Array.from(await packed(text));
  const sealed = new Uint8Array(await crypto.subtle.encrypt(algorithm, await imported(key), plain));
  const whole = new Uint8Array(nonceBytes + sealed.length);
  whole.set(iv);
  whole.set(sealed, nonceBytes);
  return whole;
}

/** @throws when it has been altered, is of another job or direction, or the key is another */
export async function unseal(bytes: Uint8Array, key: string, direction: Direction, jobId: string): Promise<string> {
  const iv = Uint8Array.from(bytes.subarray(0, nonceBytes));
  const algorithm = { name: 'AES-GCM', iv, additionalData: aboutOf(direction, jobId) };
  const sealed = Uint8Array.from(bytes.subarray(nonceBytes));
  return unpacked(new Uint8Array(await crypto.subtle.decrypt(algorithm, await imported(key), sealed)));
}
