/** The record as a table: a row a frame. */
import { mean } from 'd3-array';
import type { Recorded } from '../record/schema';
import { writeCsv } from './csv';

const columns = [
  ...['file', 'setup', 'time', 'simulated', 'complete', 'body', 'lens', 'focal length mm', 'f-number', 'focused by'],
  ...[
    'recomposed',
    'mode',
    'area',
    'stance',
    's to shutter',
    'distance mm',
    'odds',
    'error um',
    'side',
    'landed elsewhere'
  ],
  ...['sharp', 'soft people', 'choice', 'reason']
];

/** CSV (RFC 4180), a row a frame; the error is positive behind, its size alone where the side is open. */
export function writeRecordCsv(frames: readonly Recorded[]): string {
  const number = (value: number | null | undefined, digits: number) =>
    value === null || value === undefined ? '' : String(Number(value.toFixed(digits)));
  const rows = frames.map((frame) => {
    const { error, takenMs } = frame;
    const open = (error?.length ?? 0) > 1;
    const um = open ? mean(error ?? [], ({ q }) => Math.abs(q)) : error?.[0]?.q;
    return [
      ...[frame.file, frame.setup, takenMs === null ? '' : new Date(takenMs).toISOString().slice(0, 19)],
      ...[String(frame.simulated), String(frame.complete), frame.body, frame.lens],
      ...[number(frame.focalLengthMm, 1), number(frame.fNumber, 2), frame.method, String(frame.recomposed)],
      ...[frame.mode, frame.area, frame.stance, number(frame.secondsToShutter, 2), number(frame.distanceMm, 0)],
      ...[
        number(frame.odds, 3),
        number(um, 1),
        error === null ? '' : open ? 'open' : (um ?? 0) < 0 ? 'front' : 'behind'
      ],
      ...[String(frame.landedElsewhere), frame.sharp],
      frame.people.flatMap(({ name, sharp }) => (sharp === false ? [name] : [])).join('; '),
      ...[frame.choice ?? '', frame.reason ?? '']
    ];
  });
  return writeCsv([columns, ...rows]);
}
