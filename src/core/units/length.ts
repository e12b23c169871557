/** Lengths as people type and read them. Values in mm. */
import { mmPerInch } from './conversions';

export type LengthUnit = 'metric' | 'feet';

export const mmPerFoot = 12 * mmPerInch;

/** One walking pace, mm (common practice, no source); the user's own replaces it. */
export const defaultPaceMm = 750;

type ParsedLength = { readonly ok: true; readonly mm: number } | { readonly ok: false; readonly message: string };

const unitsMm: Readonly<Record<string, number>> = {
  mm: 1,
  cm: 10,
  m: 1000,
  metre: 1000,
  metres: 1000,
  meter: 1000,
  meters: 1000,
  ft: mmPerFoot,
  foot: mmPerFoot,
  feet: mmPerFoot,
  "'": mmPerFoot,
  in: mmPerInch,
  inch: mmPerInch,
  inches: mmPerInch,
  '"': mmPerInch
};

/**
 * Reads "3.4", "3,4 m", "85 cm", "11ft", "11' 2\"", "11 ft 2 in", "12 paces". A bare number is in metres, or in feet for
 * those who work in feet.
 */
export function parseLength(typed: string, unit: LengthUnit, paceMm = defaultPaceMm): ParsedLength {
  const text = typed
    .trim()
    .toLowerCase()
    .replaceAll('′', "'")
    .replaceAll('’', "'")
    .replaceAll('″', '"')
    .replaceAll('”', '"')
    .replaceAll("''", '"')
    .replaceAll('−', '-')
    .replaceAll(',', '.');
  const negative = text.startsWith('-');
  let rest = negative ? text.slice(1).trim() : text;
  let mm = 0;
  let parts = 0;
  let lastUnit = '';
  while (rest !== '') {
    const match = /^(\d+\.?\d*|\.\d+)\s*([a-z]+|'|")?\s*/.exec(rest);
    if (!match || parts === 2) return unreadable(unit);
    const value = Number(match[1]);
    const name = match[2] ?? '';
    const size = sizeOf(name, unit, lastUnit, paceMm);
    if (size === undefined || !Number.isFinite(value)) return unreadable(unit);
    mm += value * size;
    lastUnit = name === '' ? (unit === 'feet' ? 'ft' : 'm') : name;
    parts += 1;
    rest = rest.slice(match[0].length);
  }
  if (parts === 0) return unreadable(unit);
  return { ok: true, mm: negative ? -mm : mm };
}

function sizeOf(name: string, unit: LengthUnit, lastUnit: string, paceMm: number): number | undefined {
  if (/^paces?$/.test(name)) return paceMm;
  if (name !== '') return unitsMm[name];
  // "11' 2": what follows feet are inches.
  if (unitsMm[lastUnit] === mmPerFoot) return mmPerInch;
  return lastUnit === '' ? (unit === 'feet' ? mmPerFoot : 1000) : undefined;
}

function unreadable(unit: LengthUnit): ParsedLength {
  const example = unit === 'feet' ? `11' 2", 11ft, 3.4m or 12 paces` : `3.4, 85 cm, 11' 2" or 12 paces`;
  return { ok: false, message: `Not a length. Type it as ${example}.` };
}

/** For reading at a glance: "85 cm", "3.4 m", "12 m"; "11′ 2″". */
export function formatLength(mm: number, unit: LengthUnit): string {
  return unit === 'feet' ? formatFeet(mm, 1) : formatMetric(mm, 2);
}

/** For typing and checking: a centimetre, or half an inch, is kept. */
export function formatLengthExactly(mm: number, unit: LengthUnit): string {
  if (unit === 'feet') return formatFeet(mm, 0.5);
  const size = Math.abs(mm);
  if (size < 10) return `${trim(mm, 1)} mm`;
  if (size < 1000) return `${trim(mm / 10, 1)} cm`;
  return `${trim(mm / 1000, 2)} m`;
}

function formatMetric(mm: number, figures: number): string {
  const size = Math.abs(mm);
  if (size < 9.95) return `${trim(mm, size < 3 ? 1 : 0)} mm`;
  if (size < 995) return `${trim(mm / 10, size < 30 ? 1 : 0)} cm`;
  if (size < 9950) return `${trim(mm / 1000, figures - 1)} m`;
  return `${trim(mm / 1000, 0)} m`;
}

function formatFeet(mm: number, step: number): string {
  const sign = mm < 0 ? '−' : '';
  const inches = Math.abs(mm) / mmPerInch;
  if (inches < 12) return `${sign}${trim(inches, inches < 3 ? 1 : 0)}″`;
  const rounded = Math.round(inches / step) * step;
  const feet = Math.floor(rounded / 12);
  const left = rounded - feet * 12;
  return left === 0 ? `${sign}${feet}′` : `${sign}${feet}′ ${trim(left, 1)}″`;
}

function trim(value: number, decimals: number): string {
  const text = String(Number(value.toFixed(decimals)));
  return (text === '-0' ? '0' : text).replace('-', '−');
}

/** The same text with each length kept on one line with what leads to it: "from 1.5 m" breaks before "from" or not at all. */
export function unbroken(text: string): string {
  return text.replace(/(from |at )?\d[\d.,]* (?:m|cm|mm|km)\b|(from |at )\d+′( \d+″)?/g, (found) =>
    found.replaceAll(' ', '\u00a0')
  );
}

/** "27–37 cm", "80 cm–1.2 m": both ends, the unit once where it is the same. @param low, high mm */
export function formatLengthRange(low: number, high: number, unit: LengthUnit): string {
  const [from, to] = [formatLength(low, unit), formatLength(high, unit)];
  const own = / [a-z]+$/.exec(to)?.[0];
  return `${own !== undefined && from.endsWith(own) ? from.slice(0, -own.length) : from}–${to}`;
}
