/**
 * What new kit starts with, where its owner says nothing: generic bodies and lenses, with the source of each figure nobody
 * is asked for. All from memory or common practice without a source, all to be changed.
 */
import type { Body, FocusGrid, Lens } from './schema';

export const fullFrame = { widthMm: 36, heightMm: 24 } as const;

/** Grids of points (common practice, no source): nearly the whole frame, or its middle. */
export const wholeFrameGrid: FocusGrid = {
  columns: 13,
  rows: 9,
  widthShare: 0.92,
  heightShare: 0.9,
  fine: { columns: 25, rows: 17 },
  sensitive: 'all',
  sizes: ['pinpoint', 'small', 'medium'],
  anywhere: false
};
export const middleGrid: FocusGrid = {
  columns: 11,
  rows: 5,
  widthShare: 0.5,
  heightShare: 0.34,
  fine: null,
  sensitive: 'all',
  sizes: ['small'],
  anywhere: false
};

export function newBody(id: string, name: string, changes: Partial<Body> = {}): Body {
  return {
    id,
    name,
    kind: 'mirrorless',
    sensor: { ...fullFrame, pixelsWide: 6000 },
    focusGrid: wholeFrameGrid,
    mount: '',
    alsoTakes: [],
    cropModes: [],
    focusSpreadUm: null,
    focusLimitEv: -1,
    framesPerSecond: 8,
    releaseLagS: 0.06,
    stabiliserStops: 0,
    baseIso: 100,
    isoLimit: 12_800,
    fastestShutterS: 1 / 8000,
    syncS: 1 / 200,
    retired: false,
    ...changes
  };
}

/** Closest focus of a lens nobody has told it of, mm: about ten focal lengths, a zoom's middle one (from memory). */
export function usualClosestMm(shortestMm: number, longestMm: number): number {
  return Math.round((Math.sqrt(shortestMm * longestMm) * 10) / 10) * 10;
}

export function newLens(id: string, name: string, changes: Partial<Lens> = {}): Lens {
  const shortestMm = changes.shortestMm ?? 50;
  const longestMm = changes.longestMm ?? shortestMm;
  return {
    id,
    name,
    shortestMm,
    longestMm,
    widestFNumber: 1.8,
    smallestFNumber: 16,
    widestAtLong: null,
    smallestAtLong: null,
    closestFocusMm: usualClosestMm(shortestMm, longestMm),
    mount: '',
    pupilMagnification: 1,
    weakEnds: 'none',
    rim: 'even',
    stabiliserStops: 0,
    blades: 9,
    character: 'ordinary',
    retired: false,
    ...changes
  };
}
