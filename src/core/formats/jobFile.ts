/**
 * The job file: one JSON document with a job, its setups and the kit they use. docs/formats.md describes it.
 * Reading refuses what is not exactly that, names the field and the reason, and never returns half a job.
 */
import { z } from 'zod';
import { jobSchema, kitSchema, limits, setupSchema, type Job, type Kit, type Setup } from '../setup/schema';
import { issueField, issueReason } from './issues';
import { migrateJobFile, setupVersion } from './migrations';

export const jobFileFormat = 'focalis-job';
export const jobFileVersion = setupVersion;

/** Largest file read, bytes. A job of 300 setups takes about 1 MB. */
export const maxJobFileBytes = 8_000_000;

/** Deepest nesting read. A job file goes seven levels deep. */
const maxDepth = 32;

const forbiddenKeys = new Set(['__proto__', 'constructor', 'prototype']);

const unique = (setups: readonly Setup[]) => new Set(setups.map((setup) => setup.id)).size === setups.length;

export const jobFileSchema = z.strictObject({
  format: z.literal(jobFileFormat),
  version: z.literal(jobFileVersion),
  job: jobSchema,
  kit: kitSchema,
  setups: z
    .array(setupSchema)
    .max(limits.maxSetups, `must be at most ${limits.maxSetups} setups`)
    .refine(unique, 'two setups share an id')
});

export interface JobFile {
  readonly job: Job;
  readonly kit: Kit;
  readonly setups: readonly Setup[];
}

export type JobFileResult =
  | { readonly ok: true; readonly file: JobFile }
  /** `field` is a path such as "setups[2].camera.placement.distanceMm"; empty when the file as a whole is meant. */
  | { readonly ok: false; readonly field: string; readonly reason: string };

/** The text of a job file. Holds only the bodies and lenses the setups use. */
export function writeJobFile({ job, kit, setups }: JobFile): string {
  const bodies = kit.bodies.filter((body) => setups.some((setup) => setup.camera.bodyId === body.id));
  const lenses = kit.lenses.filter((lens) => setups.some((setup) => setup.camera.lensId === lens.id));
  const file = { format: jobFileFormat, version: jobFileVersion, job, kit: { bodies, lenses }, setups };
  return `${JSON.stringify(file, null, 2)}\n`;
}

/** Reads the text of a job file of this or an earlier version. */
export function readJobFile(text: string): JobFileResult {
  if (text.length > maxJobFileBytes) return refuse('', tooLarge(text.length));
  const deep = nestingDepth(text);
  if (deep > maxDepth) return refuse('', `The file is nested ${deep} levels deep; a job file has at most ${maxDepth}.`);

  let data: unknown;
  try {
    data = JSON.parse(text.replace(/^\uFEFF/, ''));
  } catch {
    return refuse('', 'The file is not complete JSON: it may be cut off, or not a job file at all.');
  }
  const forbidden = forbiddenPath(data, '');
  if (forbidden !== undefined) return refuse(forbidden, 'This key has no place in a job file.');
  if (typeof data !== 'object' || data === null || Array.isArray(data)) {
    return refuse('', 'The file does not hold a job.');
  }
  const { format, version } = data as { format?: unknown; version?: unknown };
  if (format !== jobFileFormat)
    return refuse('format', `This is not a Focalis job file (expected "${jobFileFormat}").`);
  if (typeof version !== 'number' || !Number.isInteger(version) || version < 1) {
    return refuse('version', 'The version must be a whole number from 1.');
  }
  if (version > jobFileVersion) {
    return refuse(
      'version',
      `The file is of version ${version}, newer than this Focalis reads (${jobFileVersion}). Update Focalis.`
    );
  }

  const parsed = jobFileSchema.safeParse(migrateJobFile(data, version));
  if (!parsed.success) {
    const issue = parsed.error.issues[0];
    return refuse(issueField(issue), issueReason(issue));
  }
  return checkKit(parsed.data);
}

/** Why a file of this size is not read. */
export function tooLarge(bytes: number): string {
  const megabytes = (value: number) => Math.round(value / 1e6);
  return `The file has ${megabytes(bytes)} MB; a job file has at most ${megabytes(maxJobFileBytes)} MB.`;
}

function refuse(field: string, reason: string): JobFileResult {
  return { ok: false, field, reason };
}

/** Every setup's body and lens must come with the file, and the focal length must be one the lens has. */
function checkKit(file: z.infer<typeof jobFileSchema>): JobFileResult {
  for (const [index, setup] of file.setups.entries()) {
    const { camera } = setup;
    const lens = file.kit.lenses.find((item) => item.id === camera.lensId);
    if (!file.kit.bodies.some((item) => item.id === camera.bodyId)) {
      return refuse(`setups[${index}].camera.bodyId`, `The body "${camera.bodyId}" is missing from the file's kit.`);
    }
    if (!lens) {
      return refuse(`setups[${index}].camera.lensId`, `The lens "${camera.lensId}" is missing from the file's kit.`);
    }
    if (camera.focalLengthMm < lens.shortestMm || camera.focalLengthMm > lens.longestMm) {
      return refuse(
        `setups[${index}].camera.focalLengthMm`,
        `The lens ${lens.name} has no ${camera.focalLengthMm} mm.`
      );
    }
  }
  return { ok: true, file: { job: file.job, kit: file.kit, setups: file.setups } };
}

/** Deepest nesting of brackets outside strings, found without parsing. */
function nestingDepth(text: string): number {
  let depth = 0;
  let deepest = 0;
  let inString = false;
  for (let i = 0; i < text.length; i++) {
    const code = text.charCodeAt(i);
    if (inString) {
      if (code === 0x5c) i++;
      else if (code === 0x22) inString = false;
    } else if (code === 0x22) inString = true;
    else if (code === 0x7b || code === 0x5b) deepest = Math.max(deepest, ++depth);
    else if (code === 0x7d || code === 0x5d) depth--;
  }
  return deepest;
}

function forbiddenPath(value: unknown, path: string): string | undefined {
  if (typeof value !== 'object' || value === null) return undefined;
  for (const key of Object.keys(value)) {
    const here = Array.isArray(value) ? `${path}[${key}]` : path === '' ? key : `${path}.${key}`;
    if (forbiddenKeys.has(key)) return here;
    const inside = forbiddenPath((value as Record<string, unknown>)[key], here);
    if (inside !== undefined) return inside;
  }
  return undefined;
}
