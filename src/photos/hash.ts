/** What a file is known by. */
import { sha256 } from '@noble/hashes/sha2.js';
import { bytesToHex } from '@noble/hashes/utils.js';

/** SHA-256 (FIPS 180-4) in hexadecimal; by the browser where it has it: over plain http, as on a phone beside the desk, it has not. */
export async function sha256Hex(bytes: Uint8Array<ArrayBuffer>): Promise<string> {
  const { subtle } = globalThis.crypto as { readonly subtle?: SubtleCrypto };
  return bytesToHex(subtle ? new Uint8Array(await subtle.digest('SHA-256', bytes)) : sha256(bytes));
}
