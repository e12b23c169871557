/** Numbers as people type them: with a decimal comma or point, a unit or none, a minus of either kind. */

export type NumberUnit = 'deg' | 'percent' | 'seconds' | 'oneOverSeconds' | 'millimetres' | 'metresPerSecond' | 'none';

interface UnitWords {
  /** As it stands beside a number. */
  readonly short: string;
  readonly accepted: Readonly<Record<string, number>>;
  readonly example: string;
}

const words: Readonly<Record<NumberUnit, UnitWords>> = {
  deg: { short: '°', accepted: { '°': 1, deg: 1, degree: 1, degrees: 1 }, example: 'degrees: 40' },
  percent: { short: '%', accepted: { '%': 1, percent: 1, 'per cent': 1 }, example: 'per cent: 90' },
  seconds: {
    short: 's',
    accepted: { s: 1, sec: 1, second: 1, seconds: 1, ms: 0.001 },
    example: 'seconds: 0.5, or 1/2'
  },
  oneOverSeconds: { short: '', accepted: { s: 1, sec: 1 }, example: 'a shutter time: 125, or 1/125' },
  millimetres: { short: 'mm', accepted: { mm: 1, cm: 10 }, example: 'millimetres: 50' },
  metresPerSecond: {
    short: 'm/s',
    accepted: { 'm/s': 1, 'km/h': 1 / 3.6 },
    example: 'metres a second: 1.2'
  },
  none: { short: '', accepted: {}, example: 'a number: 3' }
};

type ParsedNumber = { readonly ok: true; readonly value: number } | { readonly ok: false; readonly message: string };

export interface NumberRange {
  readonly unit: NumberUnit;
  readonly min: number;
  readonly max: number;
  /** Only whole numbers. */
  readonly whole?: boolean;
}

/** Digits shown after the point at most. */
const decimals = 3;

const number = String.raw`[+-]?(?:\d+(?:[.,]\d*)?|[.,]\d+)`;
const plain = new RegExp(`^(${number})\\s*(\\D*)$`);
const fraction = new RegExp(`^(${number})\\s*/\\s*(${number})\\s*(\\D*)$`);

/** Reads a number in its unit, inside its range. A message says what is wrong and what could be typed. */
export function parseNumber(text: string, range: NumberRange): ParsedNumber {
  const { accepted, example } = words[range.unit];
  const typed = text
    .trim()
    .replaceAll('−', '-')
    .replace(/^f\//i, range.unit === 'none' ? '' : 'f/');
  const refuse = (message: string) => ({ ok: false as const, message });
  if (typed === '') return refuse(`Type ${example}.`);
  const read = readValue(typed, range.unit);
  if (!read) return refuse(`Type ${example}.`);
  const factor = read.unit === '' ? 1 : accepted[read.unit.toLowerCase()];
  if (factor === undefined) return refuse(`“${read.unit}” isn’t a unit here. Type ${example}.`);
  const value = read.value * factor;
  if (!Number.isFinite(value)) return refuse(`Type ${example}.`);
  if (range.whole && !Number.isInteger(value)) return refuse(`A whole number, ${rangeWords(range)}.`);
  if (value < range.min || value > range.max) return refuse(`${sentence(rangeWords(range))}.`);
  return { ok: true, value };
}

function readValue(typed: string, unit: NumberUnit): { readonly value: number; readonly unit: string } | null {
  const toNumber = (part: string) => Number(part.replace(',', '.'));
  const parts = fraction.exec(typed);
  if (parts && (unit === 'seconds' || unit === 'oneOverSeconds')) {
    const [over, under] = [toNumber(parts[1] ?? ''), toNumber(parts[2] ?? '')];
    return { value: unit === 'seconds' ? over / under : under / over, unit: parts[3]?.trim() ?? '' };
  }
  const whole = plain.exec(typed);
  return whole ? { value: toNumber(whole[1] ?? ''), unit: whole[2]?.trim() ?? '' } : null;
}

/** "from −180 to 180°". */
export function rangeWords({ unit, min, max }: NumberRange): string {
  if (unit === 'oneOverSeconds') return `from 1/${formatNumber(min)} to 1/${formatNumber(max)} s`;
  const { short } = words[unit];
  const space = short === '°' || short === '' ? '' : ' ';
  return `from ${formatNumber(min)} to ${formatNumber(max)}${space}${short}`.replaceAll('-', '−');
}

const sentence = (text: string) => text.charAt(0).toUpperCase() + text.slice(1);

/** As few digits as say it, at most three after the point; with a minus anybody can type. */
export function formatNumber(value: number): string {
  return String(Number(value.toFixed(decimals)) + 0);
}

/** One step up or down: the number's own grid, so that down takes up back; beyond the range it stays where it is. */
export function steppedNumber(value: number, by: number, { min, max }: Pick<NumberRange, 'min' | 'max'>): number {
  const next = Number((value + by).toFixed(9));
  return next < min || next > max ? value : next;
}
