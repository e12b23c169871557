/** The record as files: JSON that can be read back, and a table (docs/formats.md). */
import { z } from 'zod';
import { mean } from 'd3-array';
import { recordedSchema, type Recorded } from '../record/schema';
import { writeCsv } from './csv';
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

const columns = [
  ...['file', 'setup', 'time', 'simulated', 'complete', 'body', 'lens', 'focal length mm', 'f-number', 'focused by'],
  ...[
    'recomposed',
    'mode',
    'area',
    'stance',
    's to shutter',
    'distance mm',
    'odds',
    'error um',
    'side',
    'landed elsewhere'
  ],
  ...['sharp', 'soft people', 'choice', 'reason']
];

/** CSV (RFC 4180), a row a frame; the error is positive behind, its size alone where the side is open. */
export function writeRecordCsv(frames: readonly Recorded[]): string {
  const number = (value: number | null | undefined, digits: number) =>
    value === null || value === undefined ? '' : String(Number(value.toFixed(digits)));
  const rows = frames.map((frame) => {
    const { error, takenMs } = frame;
    const open = (error?.length ?? 0) > 1;
    const um = open ? mean(error ?? [], ({ q }) => Math.abs(q)) : error?.[0]?.q;
    return [
      ...[frame.file, frame.setup, takenMs === null ? '' : new Date(takenMs).toISOString().slice(0, 19)],
      ...[String(frame.simulated), String(frame.complete), frame.body, frame.lens],
      ...[number(frame.focalLengthMm, 1), number(frame.fNumber, 2), frame.method, String(frame.recomposed)],
      ...[frame.mode, frame.area, frame.stance, number(frame.secondsToShutter, 2), number(frame.distanceMm, 0)],
      ...[
        number(frame.odds, 3),
        number(um, 1),
        error === null ? '' : open ? 'open' : (um ?? 0) < 0 ? 'front' : 'behind'
      ],
      ...[String(frame.landedElsewhere), frame.sharp],
      frame.people.flatMap(({ name, sharp }) => (sharp === false ? [name] : [])).join('; '),
      ...[frame.choice ?? '', frame.reason ?? '']
    ];
  });
  return writeCsv([columns, ...rows]);
}
