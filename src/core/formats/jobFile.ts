/**
 * The job file: one JSON document with a job, its people, places and setups, and the kit they use. docs/formats.md
 * describes it. Reading refuses what is not exactly that, names the field and the reason, and never returns half a job.
 */
import { clocksWithoutSerials } from '../frames/clocks';
import { z } from 'zod';
import { kitUsed } from '../kit/find';
import { kitSchema, type Kit } from '../kit/schema';
import {
  jobPersonSchema,
  jobPlaceSchema,
  jobSchema,
  jobSetupSchema,
  type Job,
  type JobPerson,
  type JobPlace,
  type JobSetup
} from '../job/schema';
import { limits } from '../schema/values';
import { usedKitOf } from '../setup/usedKit';
import { listOf } from '../setup/schema';
import { issueField, issueReason } from './issues';
import { forbiddenPath, shapeProblem } from './untrusted';
import { currentVersion, renewJobFile } from './versions';

const jobFileFormat = 'focalis-job';
export const jobFileVersion = currentVersion;

/** Largest file read, bytes: room for 300 setups of 200 people with every name and note as long as it may be. */
export const maxJobFileBytes = 160_000_000;

const partSchemas = {
  people: listOf(jobPersonSchema, limits.maxJobPeople, 'people'),
  places: listOf(jobPlaceSchema, limits.maxJobPlaces, 'places'),
  setups: listOf(jobSetupSchema, limits.maxSetups, 'setups')
} as const;

export const jobFileSchema = z.strictObject({
  format: z.literal(jobFileFormat),
  version: z.literal(jobFileVersion),
  job: jobSchema,
  kit: kitSchema,
  ...partSchemas
});

export interface JobFile {
  readonly job: Job;
  readonly kit: Kit;
  readonly people: readonly JobPerson[];
  readonly places: readonly JobPlace[];
  readonly setups: readonly JobSetup[];
}

export type JobFileResult =
  | { readonly ok: true; readonly file: JobFile }
  /** `field` is a path such as "setups[2].camera.placement.distanceMm"; empty when the file as a whole is meant. */
  | { readonly ok: false; readonly field: string; readonly reason: string };

/** Told how much of the reading is done, 0 to 1. */
type OnRead = (share: number) => void;

/**
 * The text of a job file, an item a line. Holds only the bodies and lenses the setups use; somebody whom the job does not
 * know stands in no picture, and so in no file.
 */
export function writeJobFile({ job, kit, people, places, setups }: JobFile): string {
  const known = new Set(people.map((person) => person.id));
  const whole = setups.map((setup) =>
    setup.people.every((standing) => known.has(standing.id))
      ? setup
      : { ...setup, people: setup.people.filter((standing) => known.has(standing.id)) }
  );
  const { bodies, lenses, adapters } = kitUsed(kit, setups.flatMap(usedKitOf));
  const list = (items: readonly unknown[]) =>
    items.length === 0 ? '[]' : `[\n${items.map((item) => JSON.stringify(item)).join(',\n')}\n]`;
  return [
    `{"format":${JSON.stringify(jobFileFormat)},"version":${jobFileVersion},`,
    // Bags are the photographer's, not the job's.
    `"job":${JSON.stringify({ ...job, bagId: null, clocks: clocksWithoutSerials(job.clocks) })},`,
    `"kit":{"bodies":${list(bodies)},"lenses":${list(lenses)},"adapters":${list(adapters)}},`,
    `"people":${list(people)},`,
    `"places":${list(places)},`,
    `"setups":${list(whole)}}`,
    ''
  ].join('\n');
}

/** Reads the text of a job file of this or an earlier version. */
export function readJobFile(text: string, onRead: OnRead = () => undefined): JobFileResult {
  if (text.length > maxJobFileBytes) return refuse('', jobFileTooLarge(text.length));
  const shape = shapeProblem(text);
  if (shape !== null) return refuse('', shape);
  onRead(0.1);

  let data: unknown;
  try {
    data = JSON.parse(text.replace(/^\uFEFF/, ''));
  } catch {
    return refuse('', 'This isn’t a complete job file: it may be cut off, or something else.');
  }
  onRead(0.2);
  if (typeof data !== 'object' || data === null || Array.isArray(data)) {
    return refuse('', 'There is no job in the file.');
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
  const forbidden = forbiddenPath(data);
  if (forbidden !== null) return refuse(forbidden, 'This key has no place in a job file.');

  const renewed = renewJobFile(data, version);
  if (!renewed.ok) return refuse(issueField(renewed.issue), issueReason(renewed.issue));
  onRead(0.4);
  const parsed = jobFileSchema.safeParse(renewed.data);
  onRead(0.9);
  if (!parsed.success) {
    const issue = parsed.error.issues[0];
    return refuse(issueField(issue), issueReason(issue));
  }
  return checkReferences(parsed.data);
}

/** Why a file of this size is not read. */
export function jobFileTooLarge(bytes: number): string {
  const megabytes = (value: number) => Math.round(value / 1e6);
  return `The file has ${megabytes(bytes)} MB; a job file has at most ${megabytes(maxJobFileBytes)} MB.`;
}

function refuse(field: string, reason: string): JobFileResult {
  return { ok: false, field, reason };
}

/** Every setup's place and people must come with the file. Kit may be missing: the setup then asks for another. */
function checkReferences(file: z.infer<typeof jobFileSchema>): JobFileResult {
  const people = new Set(file.people.map((person) => person.id));
  const places = new Set(file.places.map((place) => place.id));
  for (const [index, setup] of file.setups.entries()) {
    if (!places.has(setup.placeId)) {
      return refuse(`setups[${index}].placeId`, `The place "${setup.placeId}" is missing from the file.`);
    }
    const stranger = setup.people.findIndex((standing) => !people.has(standing.id));
    if (stranger >= 0) {
      const id = setup.people[stranger]?.id ?? '';
      return refuse(`setups[${index}].people[${stranger}].id`, `The person "${id}" is missing from the file.`);
    }
  }
  const { job, kit, people: cast, places: rooms, setups } = file;
  return { ok: true, file: { job, kit, people: cast, places: rooms, setups } };
}
