/**
 * Cameras and lenses from files of the open Lensfun XML database format (version 1 and 2: lensdatabase, mount, camera, lens).
 * The database's own data is under the Creative Commons Attribution-Share Alike licence; Focalis ships none of it.
 */
import { XMLParser, XMLValidator } from 'fast-xml-parser';
import { lensSchema } from '../kit/schema';
import { boundsOf, fNumber, limits } from '../schema/values';

/** Largest file, and all of them together, bytes; the whole database has under 4 MB. */
export const maxLensfunBytes = 20_000_000;

/** A camera as the database has it. */
export interface BodyEntry {
  readonly kind: 'body';
  readonly name: string;
  readonly mount: string;
  readonly alsoTakes: readonly string[];
  readonly cropFactor: number;
}

/** A lens as the database has it; null where it does not say. */
export interface LensEntry {
  readonly kind: 'lens';
  readonly name: string;
  readonly mounts: readonly string[];
  readonly shortestMm: number;
  readonly longestMm: number;
  readonly widestFNumber: number | null;
  /** At the long end, where it differs. */
  readonly widestAtLong: number | null;
  readonly smallestFNumber: number | null;
}

export type LensfunEntry = BodyEntry | LensEntry;

/** An entry that cannot be taken, and why. */
export interface Left {
  readonly name: string;
  readonly reason: string;
}

export type LensfunResult =
  | { readonly ok: true; readonly entries: readonly LensfunEntry[]; readonly left: readonly Left[] }
  | { readonly ok: false; readonly reason: string };

const refuse = (reason: string): LensfunResult => ({ ok: false, reason });

const lists = new Set([
  'mount',
  'camera',
  'lens',
  'maker',
  'model',
  'name',
  'compat',
  'distortion',
  'focal',
  'aperture'
]);

const parser = new XMLParser({
  ignoreAttributes: false,
  attributeNamePrefix: '@',
  parseTagValue: false,
  processEntities: true,
  isArray: (name) => lists.has(name)
});

type Node = Readonly<Record<string, unknown>>;

const nodes = (node: Node | undefined, name: string): unknown[] => {
  const found = node?.[name];
  return Array.isArray(found) ? (found as unknown[]) : found === undefined ? [] : [found];
};
const isNode = (value: unknown): value is Node => typeof value === 'object' && value !== null && !Array.isArray(value);
const inner = (node: Node | undefined, name: string): Node[] => nodes(node, name).filter(isNode);

/** The words of a tag, whatever attributes it has. */
function words(value: unknown): string {
  const text = isNode(value) ? value['#text'] : value;
  return typeof text === 'string'
    ? text
        .replaceAll(/[\p{Cc}<>]/gu, ' ')
        .replaceAll(/\s+/g, ' ')
        .trim()
    : '';
}

/** What is said without a language, else in English, else in any. */
function plainest(node: Node, name: string): string {
  const all = nodes(node, name);
  const lang = (value: unknown) => (isNode(value) ? value['@lang'] : undefined);
  const found = all.find((value) => lang(value) === undefined) ?? all.find((value) => lang(value) === 'en') ?? all[0];
  return words(found);
}

function nameOf(node: Node): string {
  const maker = plainest(node, 'maker');
  const model = plainest(node, 'model');
  const variant = plainest(node, 'variant');
  const whole = model.toLowerCase().startsWith(maker.toLowerCase()) ? model : `${maker} ${model}`;
  return `${whole}${variant === '' ? '' : ` (${variant})`}`.trim().slice(0, limits.maxNameLength);
}

function number(value: unknown): number | null {
  const read = typeof value === 'string' && value.trim() !== '' ? Number(value) : NaN;
  return Number.isFinite(read) && read > 0 ? read : null;
}

const decimal = String.raw`(\d{1,2}(?:[.,]\d+)?)`;
const focalInName = /(\d+(?:\.\d+)?)\s*(?:-\s*(\d+(?:\.\d+)?))?\s*mm/i;
/** "f/1.4", "F2.8-4", "1:3.5-5.6", "50mmF2"; not the F of a camera's name. */
const stopInName = new RegExp(
  String.raw`(?:(?<![a-z0-9-])f|(?<=mm)f|\b1:)\s*\/?\s*${decimal}(?![\d.])(?:\s*-\s*(?:f\/?)?${decimal})?`,
  'i'
);
/** "2.8/135", as some makers write opening and focal length; "24mm 2.0". */
const stopOverFocal = new RegExp(String.raw`(?<![\d.,/])${decimal}\/(\d{1,4})(?![\d/])`);
const stopAfterFocal = /mm\s+(\d{1,2}\.\d)(?!\d)/i;

interface Ends {
  readonly short: number;
  readonly long: number;
}

/** Focal lengths: said, else in the name, else those it was measured at. */
function focalOf(node: Node, model: string): Ends | null {
  for (const said of inner(node, 'focal')) {
    const value = number(said['@value']);
    const [min, max] = [number(said['@min']) ?? value, number(said['@max']) ?? value];
    if (min !== null && max !== null) return { short: min, long: max };
  }
  const named = focalInName.exec(model);
  const short = number(named?.[1]);
  if (short !== null) return { short, long: number(named?.[2]) ?? short };
  const over = number(stopOverFocal.exec(model)?.[2]);
  if (over !== null) return { short: over, long: over };
  const measured = inner(node, 'calibration')
    .flatMap((calibration) => inner(calibration, 'distortion'))
    .flatMap((item) => number(item['@focal']) ?? []);
  return measured.length === 0 ? null : { short: Math.min(...measured), long: Math.max(...measured) };
}

/** Openings: said, else in the name ("f/3.5-5.6" closes down along its range), else unknown. */
function stopsOf(node: Node, model: string): Pick<LensEntry, 'widestFNumber' | 'widestAtLong' | 'smallestFNumber'> {
  const mark = (text: string | undefined) => number(text?.replace(',', '.'));
  const named = stopInName.exec(model) ?? stopOverFocal.exec(model)?.slice(0, 2) ?? stopAfterFocal.exec(model);
  const [short, long] = [mark(named?.[1]), mark(named?.[2])];
  const widestAtLong = short !== null && long !== null && long > short ? long : null;
  for (const said of inner(node, 'aperture')) {
    const widest = number(said['@min']) ?? number(said['@value']);
    if (widest !== null)
      return {
        widestFNumber: widest,
        widestAtLong: widest === short ? widestAtLong : null,
        smallestFNumber: number(said['@max'])
      };
  }
  return { widestFNumber: short, widestAtLong, smallestFNumber: null };
}

/** What a lens of the kit may have. */
const focalMm = boundsOf(lensSchema.shape.shortestMm);
const marks = boundsOf(fNumber);
/** From medium format to the smallest sensors, generously (from memory). */
const cropFactors = { min: 0.3, max: 20 } as const;

function bodyEntry(node: Node, compatible: ReadonlyMap<string, readonly string[]>): BodyEntry | Left {
  const name = nameOf(node);
  const mount = plainest(node, 'mount').slice(0, limits.maxMountLength);
  const cropFactor = number(words(node['cropfactor']));
  if (name === '') return { name: 'A camera', reason: 'it has no name' };
  if (mount === '') return { name, reason: 'it has no mount' };
  if (cropFactor === null || cropFactor < cropFactors.min || cropFactor > cropFactors.max)
    return { name, reason: 'its crop factor is missing' };
  const others = (compatible.get(mount) ?? []).filter((other) => other !== mount);
  return { kind: 'body', name, mount, alsoTakes: others.slice(0, limits.maxMountsOfBody), cropFactor };
}

function lensEntry(node: Node): LensEntry | Left {
  const name = nameOf(node);
  const model = plainest(node, 'model');
  const mounts = nodes(node, 'mount')
    .map((mount) => words(mount).slice(0, limits.maxMountLength))
    .filter((mount) => mount !== '');
  if (name === '') return { name: 'A lens', reason: 'it has no name' };
  if (mounts.length === 0) return { name, reason: 'it has no mount' };
  const focal = focalOf(node, model);
  if (!focal) return { name, reason: 'it has no focal length' };
  if (focal.short > focal.long) return { name, reason: 'its focal lengths run backwards' };
  if (focal.short < focalMm.min || focal.long > focalMm.max)
    return { name, reason: 'its focal length is out of range' };
  const stops = stopsOf(node, model);
  const { widestFNumber, smallestFNumber } = stops;
  const wrong = (value: number | null) => value !== null && (value < marks.min || value > marks.max);
  if (wrong(widestFNumber) || wrong(stops.widestAtLong) || wrong(smallestFNumber))
    return { name, reason: 'its f-number is out of range' };
  if (widestFNumber !== null && smallestFNumber !== null && widestFNumber > smallestFNumber)
    return { name, reason: 'its widest opening is smaller than its smallest' };
  return { kind: 'lens', name, mounts: [...new Set(mounts)], shortestMm: focal.short, longestMm: focal.long, ...stops };
}

/** Reads the text of one file. Broken entries are left out and named; a file that is none is refused as a whole. */
export function readLensfun(text: string): LensfunResult {
  if (text.length > maxLensfunBytes) return refuse(`It has more than ${maxLensfunBytes / 1e6} MB.`);
  if (text.trim() === '') return refuse('It is empty.');
  if (/<!(?:DOCTYPE|ENTITY)/i.test(text)) return refuse('It declares its own entities, which Focalis refuses.');
  const valid = XMLValidator.validate(text);
  if (valid !== true) {
    const { line, msg } = valid.err;
    return refuse(`It is cut off or no XML (line ${line}: ${msg.replace(/\.$/, '')}).`);
  }
  let root: unknown;
  try {
    root = parser.parse(text);
  } catch (error) {
    return refuse(`It could not be read (${error instanceof Error ? error.message : String(error)}).`);
  }
  const database = isNode(root) ? root['lensdatabase'] : undefined;
  if (database === undefined) return refuse('It is XML, but no Lensfun database.');
  const whole = isNode(database) ? database : {};
  const compatible = new Map(
    inner(whole, 'mount').map((mount) => [plainest(mount, 'name'), nodes(mount, 'compat').map((item) => words(item))])
  );
  const read = [
    ...inner(whole, 'camera').map((node) => bodyEntry(node, compatible)),
    ...inner(whole, 'lens').map(lensEntry)
  ];
  return {
    ok: true,
    entries: read.filter((item): item is LensfunEntry => 'kind' in item),
    left: read.filter((item): item is Left => !('kind' in item))
  };
}
