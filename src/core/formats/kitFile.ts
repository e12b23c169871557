/** The kit file: bodies, lenses, adapters and bags as one JSON document. docs/formats.md describes it. */
import { z } from 'zod';
import { bagSchema, type Bag } from '../kit/bags';
import { kitSchema, type Kit } from '../kit/schema';
import { listOf } from '../setup/schema';
import { issueField, issueReason } from './issues';
import { forbiddenPath, shapeProblem } from './untrusted';
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

type KitFileResult =
  | { readonly ok: true; readonly file: KitFile }
  | { readonly ok: false; readonly field: string; readonly reason: string };

export function writeKitFile({ kit, bags }: KitFile): string {
  return `${JSON.stringify({ format, version: currentVersion, kit, bags }, null, 1)}\n`;
}

const refuse = (field: string, reason: string) => ({ ok: false as const, field, reason });

/** What is said of a file that is not even read. */
export const tooLarge = refuse('', `A kit file has at most ${maxKitFileBytes / 1e6} MB.`);

export function readKitFile(text: string): KitFileResult {
  if (text.length > maxKitFileBytes) return tooLarge;
  const shape = shapeProblem(text);
  if (shape !== null) return refuse('', shape);
  let data: unknown;
  try {
    data = JSON.parse(text.replace(/^\uFEFF/, ''));
  } catch {
    return refuse('', 'The file is not complete JSON: it may be cut off, or not a kit file at all.');
  }
  if (typeof data !== 'object' || data === null || !('format' in data) || data.format !== format)
    return refuse('format', `This is not a Focalis kit file (expected "${format}").`);
  if ('version' in data && typeof data.version === 'number' && data.version > currentVersion)
    return refuse('version', `The file is of version ${data.version}, newer than this Focalis reads. Update Focalis.`);
  const forbidden = forbiddenPath(data);
  if (forbidden !== null) return refuse(forbidden, 'This key has no place in a kit file.');
  const parsed = kitFileSchema.safeParse(data);
  if (!parsed.success) {
    const issue = parsed.error.issues[0];
    return refuse(issueField(issue), issueReason(issue));
  }
  return { ok: true, file: { kit: parsed.data.kit, bags: parsed.data.bags } };
}
