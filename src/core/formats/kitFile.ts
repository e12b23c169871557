/** The kit file: bodies, lenses, adapters and bags as one JSON document. docs/formats.md describes it. */
import { z } from 'zod';
import { bagSchema, type Bag } from '../kit/bags';
import { kitSchema, type Kit } from '../kit/schema';
import { listOf } from '../setup/schema';
import { readDocument, tooLong, type RefusedDocument } from './document';
import { currentVersion } from './versions';

const format = 'focalis-kit';

/** Largest file read, bytes. */
export const maxKitFileBytes = 4_000_000;
const maxBags = 50;

const kitFileSchema = z.strictObject({
  format: z.literal(format),
  version: z.literal(currentVersion),
  kit: kitSchema,
  bags: listOf(bagSchema, maxBags, 'bags').default([])
});

interface KitFile {
  readonly kit: Kit;
  readonly bags: readonly Bag[];
}

export function writeKitFile({ kit, bags }: KitFile): string {
  return `${JSON.stringify({ format, version: currentVersion, kit, bags }, null, 1)}\n`;
}

const kind = { format, version: currentVersion, noun: 'kit file', most: maxKitFileBytes, schema: kitFileSchema };

/** What is said of a file that is not even read. */
export const kitFileTooLarge = tooLong(kind);

export function readKitFile(text: string): { readonly ok: true; readonly file: KitFile } | RefusedDocument {
  const read = readDocument(text, kind);
  return read.ok ? { ok: true, file: { kit: read.data.kit, bags: read.data.bags } } : read;
}
