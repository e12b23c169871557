/** Every measurement as a table: a row an eye. */
import { eyeOf } from '../frames/eyes';
import type { Frame } from '../frames/schema';
import { writeCsv } from './csv';

export interface FrameLine {
  readonly frame: Frame;
  readonly setup: string;
  readonly nameOf: (personId: string) => string;
}

const figure = (value: number | null, digits = 6): string =>
  value === null ? '' : String(Number(value.toFixed(digits)));

const ofFrame = ['file', 'setup', 'time', 'focal length mm', 'f-number', 'shutter s', 'ISO', 'choice', 'reason'];
const ofEye = ['person', 'eye', 'x px', 'y px', 'disc px', 'from px', 'to px', 'movement px', 'can’t tell'];

/** CSV (RFC 4180); lengths in pixels of the picture. */
export function writeFramesCsv(lines: readonly FrameLine[]): string {
  const rows = lines.flatMap(({ frame, setup, nameOf }) => {
    const time = frame.clockMs === null ? '' : new Date(frame.clockMs).toISOString().slice(0, 19);
    const settings = [frame.focalLengthMm, frame.fNumber, frame.shutterS, frame.iso].map((value) => figure(value));
    const first = [frame.file.name, setup, time, ...settings, frame.choice ?? '', frame.reason ?? ''];
    const eyes = frame.faces.flatMap((face) =>
      (['left', 'right'] as const).map((side) => {
        const eye = eyeOf(face, side);
        const measured = eye.ok
          ? [eye.discPx, eye.low, eye.high, eye.smear?.px ?? null].map((value) => figure(value, 2))
          : ['', '', '', ''];
        const place = [face[side].x, face[side].y].map((value) => figure(value, 1));
        const person = face.personId === null ? '' : nameOf(face.personId);
        return [...first, person, side, ...place, ...measured, eye.ok ? '' : eye.reason];
      })
    );
    return eyes.length > 0 ? eyes : [[...first, ...ofEye.map(() => '')]];
  });
  return writeCsv([[...ofFrame, ...ofEye], ...rows]);
}
