/** The record as one JSON document that can be read back (docs/formats.md). */
import { z } from 'zod';
import { recordedSchema, type Recorded } from '../record/schema';
import { readDocument, tooLong, type RefusedDocument } from './document';

const format = 'focalis-record';
const version = 1;

/** Largest file read, bytes: about 100,000 frames. */
export const maxRecordFileBytes = 120_000_000;

const recordFileSchema = z.strictObject({
  format: z.literal(format),
  version: z.literal(version),
  frames: z
    .array(recordedSchema)
    .max(100_000, 'must be at most 100,000 frames')
    .refine((frames) => new Set(frames.map(({ id }) => id)).size === frames.length, 'two frames share an id')
});

export const writeRecordFile = (frames: readonly Recorded[]): string =>
  `${JSON.stringify({ format, version, frames }, null, 1)}\n`;

const kind = { format, version, noun: 'record', most: maxRecordFileBytes, schema: recordFileSchema };

/** What is said of a file that is not even read. */
export const recordFileTooLarge = tooLong(kind);

export function readRecordFile(
  text: string
): { readonly ok: true; readonly frames: readonly Recorded[] } | RefusedDocument {
  const read = readDocument(text, kind);
  return read.ok ? { ok: true, frames: read.data.frames } : read;
}
