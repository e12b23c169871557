/** One JSON document of ours as a text: read whole, or refused with the field and the reason. */
import type { z } from 'zod';
import { issueField, issueReason } from './issues';
import { forbiddenPath, shapeProblem } from './untrusted';

interface Kind<T> {
  readonly format: string;
  readonly version: number;
  /** What it is called: "kit file". */
  readonly noun: string;
  /** Longest text read, characters. */
  readonly most: number;
  readonly schema: z.ZodType<T>;
}

export interface RefusedDocument {
  readonly ok: false;
  /** A path such as "frames[2].fNumber"; empty when the document as a whole is meant. */
  readonly field: string;
  readonly reason: string;
}

const refuse = (field: string, reason: string): RefusedDocument => ({ ok: false, field, reason });

/** What is said of a document that is not even read. */
export const tooLong = ({ noun, most }: Pick<Kind<unknown>, 'noun' | 'most'>): RefusedDocument =>
  refuse('', `A ${noun} has at most ${most / 1e6} MB.`);

export function readDocument<T>(
  text: string,
  kind: Kind<T>
): { readonly ok: true; readonly data: T } | RefusedDocument {
  const { format, version, noun, schema } = kind;
  if (text.length > kind.most) return tooLong(kind);
  const shape = shapeProblem(text);
  if (shape !== null) return refuse('', shape);
  let data: unknown;
  try {
    data = JSON.parse(text.replace(/^\uFEFF/, ''));
  } catch {
    return refuse('', `This isn’t a complete ${noun}: it may be cut off, or something else.`);
  }
  if (typeof data !== 'object' || data === null || !('format' in data) || data.format !== format)
    return refuse('format', `This is not a Focalis ${noun} (expected "${format}").`);
  if ('version' in data && typeof data.version === 'number' && data.version > version)
    return refuse('version', `The file is of version ${data.version}, newer than this Focalis reads. Update Focalis.`);
  const forbidden = forbiddenPath(data);
  if (forbidden !== null) return refuse(forbidden, `This key has no place in a ${noun}.`);
  const parsed = schema.safeParse(data);
  if (parsed.success) return { ok: true, data: parsed.data };
  const issue = parsed.error.issues[0];
  return refuse(issueField(issue), issueReason(issue));
}
