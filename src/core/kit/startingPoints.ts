/** Generic kit to start from: what it is called, and what is usual for it. All from memory; everything can be changed. */
import { builtInMount } from './fits';
import { fullFrame, middleGrid, newBody, newLens, wholeFrameGrid } from './defaults';
import type { Adapter, Body, Lens } from './schema';

interface StartingPoint<T> {
  readonly name: string;
  readonly make: (id: string) => T;
}

/** Sensor sizes by the names photographers use, mm (from memory). */
export const sensorSizes = {
  'full frame': fullFrame,
  'APS-C, 23.5 mm': { widthMm: 23.5, heightMm: 15.6 },
  'APS-C, 22.3 mm': { widthMm: 22.3, heightMm: 14.9 },
  'four thirds': { widthMm: 17.3, heightMm: 13 },
  'medium format, 44 mm': { widthMm: 43.8, heightMm: 32.9 },
  'one inch': { widthMm: 13.2, heightMm: 8.8 },
  'phone, main camera': { widthMm: 9.8, heightMm: 7.3 }
} as const;

/** Pixels along the long edge of a sensor of so many megapixels. */
export function pixelsWide(
  megapixels: number,
  { widthMm, heightMm }: Pick<Body['sensor'], 'widthMm' | 'heightMm'>
): number {
  return Math.round(Math.sqrt(megapixels * 1e6 * (widthMm / heightMm)));
}

export function megapixels({ pixelsWide: wide, widthMm, heightMm }: Body['sensor']): number {
  return (wide * wide * (heightMm / widthMm)) / 1e6;
}

const fineGrid = {
  ...wholeFrameGrid,
  fine: { columns: 25, rows: 17 },
  sizes: ['pinpoint', 'small', 'medium', 'large'] as const
};

function body(name: string, size: keyof typeof sensorSizes, mp: number, changes: Partial<Body>): StartingPoint<Body> {
  const sensor = { ...sensorSizes[size], pixelsWide: pixelsWide(mp, sensorSizes[size]) };
  return { name, make: (id) => newBody(id, name, { sensor, ...changes }) };
}
const mirrorless: Partial<Body> = { focusGrid: { ...fineGrid, sizes: [...fineGrid.sizes] }, stabiliserStops: 5 };
const slr: Partial<Body> = {
  kind: 'slr',
  focusGrid: { ...middleGrid, sensitive: 'middleColumns' },
  isoLimit: 6400,
  framesPerSecond: 6
};
const aps = [{ name: 'APS-C', factor: 1.5 }];

export const bodyStarts: readonly StartingPoint<Body>[] = [
  body('Full frame, mirrorless, 24 MP', 'full frame', 24, { ...mirrorless, cropModes: aps }),
  body('Full frame, mirrorless, 45 MP', 'full frame', 45, { ...mirrorless, cropModes: aps }),
  body('Full frame, SLR, 24 MP', 'full frame', 24, slr),
  body('APS-C, mirrorless, 26 MP', 'APS-C, 23.5 mm', 26, { ...mirrorless, isoLimit: 6400 }),
  body('APS-C, SLR, 24 MP', 'APS-C, 22.3 mm', 24, { ...slr, fastestShutterS: 1 / 4000 }),
  body('Four thirds, mirrorless, 20 MP', 'four thirds', 20, { ...mirrorless, isoLimit: 3200 }),
  body('Medium format, 50 MP', 'medium format, 44 mm', 50, { ...mirrorless, framesPerSecond: 3, syncS: 1 / 125 }),
  body('Phone, main camera', 'phone, main camera', 12, {
    kind: 'phone',
    isoLimit: 1600,
    stabiliserStops: 3,
    mount: builtInMount
  })
];

function lens(f: number, N: number, changes: Partial<Lens> = {}): StartingPoint<Lens> {
  const name = `${f} mm f/${N}`;
  return { name, make: (id) => newLens(id, name, { shortestMm: f, longestMm: f, widestFNumber: N, ...changes }) };
}
function zoom(
  short: number,
  long: number,
  N: number,
  atLong: number | null,
  changes: Partial<Lens> = {}
): StartingPoint<Lens> {
  const name = `${short}–${long} mm f/${N}${atLong === null ? '' : `–${atLong}`}`;
  const ends = { shortestMm: short, longestMm: long, widestFNumber: N, widestAtLong: atLong, smallestFNumber: 22 };
  return { name, make: (id) => newLens(id, name, { ...ends, ...changes }) };
}

export const lensStarts: readonly StartingPoint<Lens>[] = [
  lens(24, 1.4, { closestFocusMm: 250 }),
  lens(35, 1.8, { closestFocusMm: 250 }),
  lens(50, 1.8, { closestFocusMm: 450, blades: 7 }),
  lens(85, 1.8, { closestFocusMm: 800 }),
  lens(85, 1.4, { closestFocusMm: 850, character: 'crisp', blades: 11 }),
  lens(105, 2.8, { closestFocusMm: 300, character: 'crisp' }),
  lens(135, 2, { closestFocusMm: 900 }),
  zoom(16, 35, 2.8, null, { closestFocusMm: 280 }),
  zoom(24, 70, 2.8, null, { closestFocusMm: 380 }),
  zoom(24, 105, 4, null, { closestFocusMm: 450, stabiliserStops: 4 }),
  zoom(70, 200, 2.8, null, { closestFocusMm: 960, stabiliserStops: 4 }),
  zoom(18, 55, 3.5, 5.6, { closestFocusMm: 250, stabiliserStops: 3 })
];

const between = (name: string, factor: number, stopsLost: number): StartingPoint<Adapter> => ({
  name,
  make: (id) => ({ id, name, lensMount: '', bodyMount: '', factor, stopsLost, retired: false })
});

export const adapterStarts: readonly StartingPoint<Adapter>[] = [
  between('Adapter ring', 1, 0),
  between('1.4× converter', 1.4, 1),
  between('2× converter', 2, 2),
  between('0.71× reducer', 0.71, -1)
];
