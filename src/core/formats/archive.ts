/**
 * Everything of a profile as files: a list of contents, the kit, each job as the job file it is, small pictures.
 * docs/formats.md describes it. How the files are kept together is not said here (src/workers/zip).
 */
import { z } from 'zod';
import type { Job } from '../job/schema';
import type { Bag } from '../kit/bags';
import type { Kit } from '../kit/schema';
import { id } from '../schema/values';
import { issueField, issueReason } from './issues';
import { readJobFile, writeJobFile, type JobFile } from './jobFile';
import { readKitFile, writeKitFile } from './kitFile';
import { benchTestSchema, type BenchTest } from '../bench/schema';
import { drillRowSchema, type DrillRow } from '../drills/schema';
import { readRecordFile, writeRecordFile } from './recordFile';
import type { Recorded } from '../record/schema';
import { readFrameFile, writeFrameFile, type ArchivedFrame, type ArchivedFrames } from './frameFile';
import { forbiddenPath, shapeProblem } from './untrusted';

const format = 'focalis-archive';
/** Version 1 held no frames. */
const archiveVersion = 2;
export const contentsName = 'focalis.json';
const kitName = 'kit.json';
const recordName = 'record.json';

const contentsSchema = z.strictObject({
  format: z.literal(format),
  version: z.literal([1, archiveVersion]),
  savedAt: z.iso.datetime(),
  settings: z.record(z.string(), z.unknown()),
  jobs: z
    .array(
      z.strictObject({
        file: z.string(),
        bagId: id.nullable(),
        /** The figures behind the odds are the photographer's, not the job's own. */
        ownFigures: z.boolean(),
        position: z.number()
      })
    )
    .max(3000),
  /** The file of the record; null where there was none. */
  record: z.literal(recordName).nullable().default(null),
  benchTests: z.array(benchTestSchema).max(10_000).default([]),
  drills: z.array(drillRowSchema).max(10_000).default([]),
  /** Files of measured frames, a job each. */
  frames: z.array(z.string().max(200)).max(3000).default([]),
  pictures: z.array(z.strictObject({ file: z.string(), key: z.string(), drawnFrom: z.string() })).max(3000)
});

/** A job with what its file does not say. */
export interface ArchivedJob {
  readonly file: JobFile;
  /** Its place among the jobs. */
  readonly position: number;
}

export interface Picture<P> {
  readonly key: string;
  readonly drawnFrom: string;
  readonly picture: P;
}

export interface Archive<P> {
  readonly savedAt: string;
  readonly settings: Readonly<Record<string, unknown>>;
  /** The photographer's own. */
  readonly kit: Kit;
  readonly bags: readonly Bag[];
  readonly jobs: readonly ArchivedJob[];
  readonly pictures: readonly Picture<P>[];
  /** Measured frames. */
  readonly record: readonly Recorded[];
  readonly benchTests: readonly BenchTest[];
  readonly drills: readonly DrillRow[];
  /** Measured frames with their pictures, by job; null where the archive is of a version that held none. */
  readonly frames: readonly ArchivedFrames<P>[] | null;
}

/** A file of an archive: its name, and what is in it. */
export type ArchiveFile<P> = readonly [name: string, content: string | P];

const endings: Readonly<Record<string, string>> = { 'image/jpeg': 'jpg', 'image/png': 'png', 'image/webp': 'webp' };

/** The name a picture has in an archive; null for what is no picture. */
const pictureName = (index: number, type: string): string | null =>
  endings[type] ? `pictures/${index + 1}.${endings[type]}` : null;

/** A job's frames as one document, with the files of their pictures beside it. */
function framesWritten<P extends { readonly type: string }>(
  { jobId, frames }: ArchivedFrames<P>,
  index: number
): { readonly name: string; readonly files: readonly ArchiveFile<P>[] } {
  const folder = `frames/${String(index + 1).padStart(4, '0')}`;
  const files: ArchiveFile<P>[] = [];
  const placed = (picture: P): string => {
    const name = `${folder}/${files.length + 1}.${endings[picture.type] ?? 'jpg'}`;
    files.push([name, picture]);
    return name;
  };
  const named = frames.map(({ seen, ...frame }): ArchivedFrame<string> => {
    if (!seen) return { ...frame, seen: null };
    const crops = seen.crops.map(({ faceId, picture }) => ({ faceId, picture: placed(picture) }));
    return { ...frame, seen: { thumbnail: placed(seen.thumbnail), sidecar: seen.sidecar, crops } };
  });
  const name = `${folder}.json`;
  return { name, files: [[name, writeFrameFile({ jobId, frames: named })], ...files] };
}

/**
 * @param kitOfJobs every body, lens and adapter that jobs may hold; what came with Focalis too
 * @param habits the photographer's own figures, as settings have them
 */
export function writeArchive<P extends { readonly type: string }>(
  { savedAt, settings, kit, bags, jobs, pictures, record, benchTests, drills, frames }: Archive<P>,
  kitOfJobs: Kit,
  habits: Job['habits']
): ArchiveFile<P>[] {
  const written = jobs.map(({ file, position }, index) => {
    const name = `jobs/${String(index + 1).padStart(4, '0')}.json`;
    const text = writeJobFile({ ...file, kit: kitOfJobs, job: { ...file.job, habits: file.job.habits ?? habits } });
    const contents = { file: name, bagId: file.job.bagId, ownFigures: file.job.habits === null, position };
    return { contents, entry: [name, text] as const };
  });
  const shown = pictures.flatMap(({ key, drawnFrom, picture }, index) => {
    const file = pictureName(index, picture.type);
    return file === null ? [] : [{ contents: { file, key, drawnFrom }, entry: [file, picture] as const }];
  });
  const measured = (frames ?? []).map(framesWritten);
  const contents = {
    format,
    version: archiveVersion,
    savedAt,
    settings,
    jobs: written.map((item) => item.contents),
    record: record.length > 0 ? recordName : null,
    benchTests,
    drills,
    frames: measured.map((item) => item.name),
    pictures: shown.map((item) => item.contents)
  };
  return [
    [contentsName, JSON.stringify(contents)],
    [kitName, writeKitFile({ kit, bags })],
    ...(record.length > 0 ? [[recordName, writeRecordFile(record)] as const] : []),
    ...written.map((item) => item.entry),
    ...shown.map((item) => item.entry),
    ...measured.flatMap((item) => item.files)
  ];
}

/** The files of an archive by their name. @throws when one is damaged */
export interface ArchiveFiles<P> {
  readonly text: (name: string) => Promise<string | null>;
  readonly picture: (name: string) => Promise<P | null>;
}

export type ArchiveResult<P> =
  { readonly ok: true; readonly archive: Archive<P> } | { readonly ok: false; readonly reason: string };

const refuse = (reason: string) => ({ ok: false as const, reason });
const inFile = (name: string, field: string, reason: string) =>
  refuse(`${name}: ${field === '' ? '' : `${field}: `}${reason}`);

/** Reads all of it, or says what is wrong with which file. A picture that is missing is left out: it is drawn again. */
export async function readArchive<P>(
  files: ArchiveFiles<P>,
  onRead: (share: number) => void = () => undefined
): Promise<ArchiveResult<P>> {
  const text = await files.text(contentsName);
  if (text === null) return refuse('It is no archive of Focalis: the list of its contents is missing.');
  const contents = readContents(text);
  if (!contents.ok) return contents;
  const {
    savedAt,
    settings,
    jobs,
    pictures,
    benchTests,
    drills,
    record: recordFile,
    frames: frameFiles
  } = contents.data;

  const kitText = await files.text(kitName);
  if (kitText === null) return inFile(kitName, '', 'It is missing.');
  const kit = readKitFile(kitText);
  if (!kit.ok) return inFile(kitName, kit.field, kit.reason);

  let record: readonly Recorded[] = [];
  if (recordFile !== null) {
    const recordText = await files.text(recordFile);
    if (recordText === null) return inFile(recordFile, '', 'It is missing.');
    const result = readRecordFile(recordText);
    if (!result.ok) return inFile(recordFile, result.field, result.reason);
    record = result.frames;
  }

  const read = await readJobs(files, jobs, onRead);
  if (!read.ok) return read;
  const frames = await readFrames(files, frameFiles, new Set(read.jobs.map(({ file }) => file.job.id)));
  if (!frames.ok) return frames;
  const shown: Picture<P>[] = [];
  for (const { file, key, drawnFrom } of pictures) {
    const picture = await files.picture(file);
    if (picture !== null) shown.push({ key, drawnFrom, picture });
  }
  const rest = { record, benchTests, drills, frames: contents.data.version === 1 ? null : frames.frames };
  return { ok: true, archive: { savedAt, settings, ...kit.file, jobs: read.jobs, pictures: shown, ...rest } };
}

type Refused = ReturnType<typeof refuse>;

async function readJobs(
  files: ArchiveFiles<unknown>,
  jobs: z.output<typeof contentsSchema>['jobs'],
  onRead: (share: number) => void
): Promise<Refused | { readonly ok: true; readonly jobs: readonly ArchivedJob[] }> {
  const read: ArchivedJob[] = [];
  const ids = new Set<string>();
  for (const [index, { file: name, bagId, ownFigures, position }] of jobs.entries()) {
    const jobText = await files.text(name);
    if (jobText === null) return inFile(name, '', 'It is missing.');
    const result = readJobFile(jobText);
    if (!result.ok) return inFile(name, result.field, result.reason);
    const { file } = result;
    if (ids.has(file.job.id)) return inFile(name, '', 'The job is there twice.');
    ids.add(file.job.id);
    // Each row stands under its id once, whatever job it is of.
    for (const part of ['people', 'places', 'setups'] as const)
      for (const item of file[part]) {
        const key = `${part}/${item.id}`;
        if (ids.has(key)) return inFile(name, part, `"${item.id}" is in another job of the archive, too.`);
        ids.add(key);
      }
    const job = { ...file.job, bagId, habits: ownFigures ? null : file.job.habits };
    read.push({ file: { ...file, job }, position });
    onRead((index + 1) / (jobs.length + 1));
  }
  return { ok: true, jobs: read };
}

/** Frames of the jobs there are. What is to be seen of one is left out where its thumbnail is missing. */
async function readFrames<P>(
  files: ArchiveFiles<P>,
  names: readonly string[],
  jobIds: ReadonlySet<string>
): Promise<Refused | { readonly ok: true; readonly frames: readonly ArchivedFrames<P>[] }> {
  const read: ArchivedFrames<P>[] = [];
  const ids = new Set<string>();
  for (const name of names) {
    const text = await files.text(name);
    if (text === null) return inFile(name, '', 'It is missing.');
    const result = readFrameFile(text);
    if (!result.ok) return inFile(name, result.field, result.reason);
    const { jobId, frames } = result.file;
    if (!jobIds.has(jobId)) return inFile(name, 'jobId', 'There is no such job in the archive.');
    const taken: ArchivedFrame<P>[] = [];
    for (const { seen, ...frame } of frames) {
      if (ids.has(frame.frame.id)) return inFile(name, 'frames', `"${frame.frame.id}" is there twice.`);
      ids.add(frame.frame.id);
      taken.push({ ...frame, seen: seen && (await seenOf(files, seen)) });
    }
    read.push({ jobId, frames: taken });
  }
  return { ok: true, frames: read };
}

async function seenOf<P>(
  files: ArchiveFiles<P>,
  { thumbnail, sidecar, crops }: NonNullable<ArchivedFrame<string>['seen']>
): Promise<ArchivedFrame<P>['seen']> {
  const small = await files.picture(thumbnail);
  if (small === null) return null;
  const cut = await Promise.all(
    crops.map(async ({ faceId, picture }) => ({ faceId, picture: await files.picture(picture) }))
  );
  const there = cut.flatMap(({ faceId, picture }) => (picture === null ? [] : [{ faceId, picture }]));
  return { thumbnail: small, sidecar, crops: there };
}

function readContents(text: string) {
  const shape = shapeProblem(text);
  if (shape !== null) return inFile(contentsName, '', shape);
  let data: unknown;
  try {
    data = JSON.parse(text);
  } catch {
    return inFile(contentsName, '', 'It is not complete JSON.');
  }
  const { format: said, version } = (typeof data === 'object' && data !== null ? data : {}) as Record<string, unknown>;
  if (said !== format) return refuse('This isn’t a Focalis backup.');
  if (typeof version === 'number' && version > archiveVersion)
    return refuse(`It is of version ${version}, newer than this Focalis reads (${archiveVersion}). Update Focalis.`);
  const forbidden = forbiddenPath(data);
  if (forbidden !== null) return inFile(contentsName, forbidden, 'This key has no place there.');
  const parsed = contentsSchema.safeParse(data);
  if (parsed.success) return { ok: true as const, data: parsed.data };
  const issue = parsed.error.issues[0];
  return inFile(contentsName, issueField(issue), issueReason(issue));
}
