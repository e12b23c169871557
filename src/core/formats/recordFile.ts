/** The record as one JSON document that can be read back (docs/formats.md). */
import { z } from 'zod';
import { recordedSchema, type Recorded } from '../record/schema';
import { issueField, issueReason } from './issues';
import { forbiddenPath, shapeProblem } from './untrusted';

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

export type RecordFileResult =
  | { readonly ok: true; readonly frames: readonly Recorded[] }
  | { readonly ok: false; readonly field: string; readonly reason: string };

export const writeRecordFile = (frames: readonly Recorded[]): string =>
  `${JSON.stringify({ format, version, frames }, null, 1)}\n`;

const refuse = (field: string, reason: string) => ({ ok: false as const, field, reason });

export function readRecordFile(text: string): RecordFileResult {
  if (text.length > maxRecordFileBytes) return refuse('', `A record has at most ${maxRecordFileBytes / 1e6} MB.`);
  const shape = shapeProblem(text);
  if (shape !== null) return refuse('', shape);
  let data: unknown;
  try {
    data = JSON.parse(text.replace(/^\uFEFF/, ''));
  } catch {
    return refuse('', 'The file is not complete JSON: it may be cut off, or not a record at all.');
  }
  if (typeof data !== 'object' || data === null || !('format' in data) || data.format !== format)
    return refuse('format', `This is not a Focalis record (expected "${format}").`);
  if ('version' in data && typeof data.version === 'number' && data.version > version)
    return refuse('version', `The file is of version ${data.version}, newer than this Focalis reads. Update Focalis.`);
  const forbidden = forbiddenPath(data);
  if (forbidden !== null) return refuse(forbidden, 'This key has no place in a record.');
  const parsed = recordFileSchema.safeParse(data);
  if (!parsed.success) {
    const issue = parsed.error.issues[0];
    return refuse(issueField(issue), issueReason(issue));
  }
  return { ok: true, frames: parsed.data.frames };
}
