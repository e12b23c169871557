/** What came of drills as a table: a row a step, or one for a drill without any. */
import { drillTitle } from '../drills/kinds';
import type { DrillResult } from '../drills/schema';
import { writeCsv } from './csv';

const head = [
  'drill',
  'time',
  'body',
  'lens',
  'focal length mm',
  'simulated',
  'stance',
  'figure',
  'from',
  'to',
  'step',
  'file',
  'mm',
  'asked',
  'hands'
];
const number = (value: number | null): string => (value === null ? '' : String(Number(value.toFixed(4))));

/** CSV (RFC 4180). */
export function writeDrillsCsv(results: readonly DrillResult[]): string {
  const rows = results.flatMap((result) => {
    const { drill, madeAt, body, lens, focalLengthMm, simulated, figure, low, high, steps, asked, learned } = result;
    const time = new Date(madeAt).toISOString().slice(0, 19);
    const first = [
      drillTitle(drill),
      time,
      body,
      lens,
      number(focalLengthMm),
      simulated ? 'yes' : 'no',
      result.stance ?? ''
    ];
    const figures = [figure, low, high].map(number);
    // "lean 20.1 17.2 23.4": what, and from where to where nine times in ten.
    const hands = learned.map(({ what, ...of }) => [what, ...[of.value, of.low, of.high].map(number)].join(' '));
    const last = [asked ?? '', hands.join('; ')];
    return steps.length === 0
      ? [[...first, ...figures, '', '', '', ...last]]
      : steps.map(({ step, file, mm }) => [...first, ...figures, step, file ?? '', number(mm), ...last]);
  });
  return writeCsv([head, ...rows]);
}
