/** The shot list as a table: written from a job, and read into new setups with a mapping of its columns. */
import type { Plan } from '../call/plan';
import type { Kit } from '../kit/schema';
import { limits } from '../schema/values';
import { clockOf, usualSchedule, type Priority, type Schedule } from '../setup/schedule';
import type { Setup } from '../setup/schema';
import { keeperRateWords, targetWords } from '../words/call';
import { readClock } from '../words/day';
import { formatIso, formatShutter } from '../words/light';
import { formatLength, type LengthUnit } from '../units/length';
import { readCsv, writeCsv } from './csv';

/** One setup of the list, with what is known of it. */
export interface ShotRow {
  readonly setup: Setup;
  readonly plan: Plan | null;
  readonly placeName: string;
  /** Minutes after midnight; null where no time is said. */
  readonly startsAt: number | null;
}

const columns = [
  'Number',
  'Name',
  'Time',
  'Fixed',
  'Minutes',
  'Priority',
  'Place',
  'People',
  'How many',
  'Body',
  'Lens',
  'Focal length, mm',
  'Aperture',
  'Focus on',
  'Distance',
  'Keeper rate',
  'Shutter',
  'ISO',
  'Done',
  'It is',
  'Notes'
] as const;

/** Who must not be read of is not in `rows` any more (`withoutNames`); `named`: whether to say who is in each picture. */
export function writeShotList(rows: readonly ShotRow[], kit: Kit, unit: LengthUnit, named: boolean): string {
  const nameOf = (items: readonly { readonly id: string; readonly name: string }[], id: string) =>
    items.find((item) => item.id === id)?.name ?? '';
  const lines = rows.map(({ setup, plan, placeName, startsAt }, index): string[] => {
    const { camera, schedule, taken, people } = setup;
    const entry = plan?.stops[plan.selected];
    return [
      String(index + 1),
      setup.name,
      startsAt === null ? '' : clockOf(startsAt),
      schedule.fixed ? 'yes' : '',
      String(schedule.minutes),
      schedule.priority === 'must' ? 'must' : 'if time',
      placeName,
      named ? people.map((person) => person.name).join('; ') : '',
      String(people.length),
      nameOf(kit.bodies, camera.bodyId),
      nameOf(kit.lenses, camera.lensId),
      String(Number(camera.focalLengthMm.toFixed(1))),
      entry ? `f/${entry.stop.label}` : '',
      plan && entry ? targetWords(plan, entry, unit) : '',
      plan ? formatLength(plan.distanceMm, unit) : '',
      plan && entry ? keeperRateWords(plan) : '',
      entry ? formatShutter(entry.light.shutterS) : '',
      entry?.light.iso == null ? '' : formatIso(entry.light.iso),
      taken.doneAt === null ? '' : taken.doneAt.slice(0, 16).replace('T', ' '),
      taken.verdict ?? '',
      setup.notes
    ];
  });
  return writeCsv([columns, ...lines]);
}

/** What a column of a list from elsewhere may mean. */
export const shotFields = [
  'name',
  'time',
  'fixed',
  'minutes',
  'priority',
  'place',
  'people',
  'count',
  'notes'
] as const;
export type ShotField = (typeof shotFields)[number];
/** For each field the column it is in, or null. */
export type Mapping = Readonly<Record<ShotField, number | null>>;

/** Headings by which a column is recognised. */
const headings: Readonly<Record<ShotField, RegExp>> = {
  name: /^(name|title|shot|picture|setup|what)$/i,
  time: /^(time|start|starts at|when|begin)$/i,
  fixed: /^fixed$/i,
  minutes: /^(minutes|min|duration|length)$/i,
  priority: /^(priority|must)$/i,
  place: /^(place|location|where|venue)$/i,
  people: /^(people|who|names|subjects|persons)$/i,
  count: /^(how many|count|number of people|people count)$/i,
  notes: /^(notes?|remarks?|comments?)$/i
};

export function guessMapping(header: readonly string[]): Mapping {
  const found = shotFields.map((field) => {
    const index = header.findIndex((heading) => headings[field].test(heading.trim()));
    return [field, index < 0 ? null : index] as const;
  });
  return Object.fromEntries(found) as Mapping;
}

/** A setup to be, as a row says it. */
export interface ListedShot {
  readonly name: string;
  readonly schedule: Schedule;
  readonly place: string;
  readonly people: readonly string[];
  /** How many there are, where nobody is named. */
  readonly count: number;
  readonly notes: string;
}

export interface ShotProblem {
  /** As a spreadsheet counts: the heading is row 1. */
  readonly row: number;
  readonly reason: string;
}

export interface ShotsRead {
  readonly shots: readonly ListedShot[];
  readonly problems: readonly ShotProblem[];
}

/** The table of a list, before it is known what its columns are; or why it is none. */
export const readShotTable = (text: string) => readCsv(text, limits.maxSetups);

/** What the rows say, with every row that cannot be taken and why. */
export function readShots(rows: readonly (readonly string[])[], mapping: Mapping): ShotsRead {
  const shots: ListedShot[] = [];
  const problems: ShotProblem[] = [];
  rows.forEach((row, index) => {
    const of = (field: ShotField) => (mapping[field] === null ? '' : (row[mapping[field] ?? -1] ?? '').trim());
    const read = readShot(of);
    if (typeof read === 'string') problems.push({ row: index + 2, reason: read });
    else shots.push(read);
  });
  return { shots, problems };
}

const yes = /^(y|yes|true|x|1|must|fixed)$/i;

function readShot(of: (field: ShotField) => string): ListedShot | string {
  const name = of('name');
  if (name === '') return 'It has no name.';
  if (name.length > limits.maxNameLength) return `Its name is longer than ${limits.maxNameLength} characters.`;
  const notes = of('notes');
  if (notes.length > limits.maxNotesLength) return `Its notes are longer than ${limits.maxNotesLength} characters.`;
  const texts = [name, of('place'), of('people'), notes];
  if (texts.some((text) => /[<>]/.test(text))) return 'It has < or > in it.';
  const time = readClock(of('time'));
  if (!time.ok) return `"${of('time')}" is no time.`;
  const minutes = of('minutes') === '' ? usualSchedule.minutes : Number(of('minutes').replace(/\s*min(utes)?$/i, ''));
  if (!Number.isInteger(minutes) || minutes < 1 || minutes > 600)
    return `"${of('minutes')}" is no number of minutes from 1 to 600.`;
  const count = of('count') === '' ? 1 : Number(of('count'));
  if (!Number.isInteger(count) || count < 1 || count > limits.maxPeople)
    return `"${of('count')}" is no number of people from 1 to ${limits.maxPeople}.`;
  const people = of('people')
    .split(/[;\n]/)
    .map((item) => item.trim())
    .filter(Boolean);
  if (people.length > limits.maxPeople) return `It has more than ${limits.maxPeople} people.`;
  if (people.some((item) => item.length > limits.maxNameLength)) return 'A person’s name is too long.';
  const said = of('priority');
  const priority: Priority = said === '' || yes.test(said) ? 'must' : 'ifTime';
  const fixed = time.value !== null && yes.test(of('fixed'));
  return {
    name,
    notes,
    place: of('place'),
    people,
    count,
    schedule: { startsAt: time.value, fixed, minutes, priority }
  };
}
