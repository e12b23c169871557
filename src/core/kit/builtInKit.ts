/** Plain descriptions of common kit, enough to start with. Closest focus, blades and character: common practice. */
import { fullFrame, middleGrid, newBody, newLens, wholeFrameGrid } from './defaults';
import { builtInMount } from './fits';
import type { Body, Kit, Lens } from './schema';

const body = (id: string, name: string, rest: Partial<Body>): Body => newBody(id, name, rest);

const exposure = (isoLimit: number, fastestShutterS: number, syncS: number) => ({
  baseIso: 100,
  isoLimit,
  fastestShutterS,
  syncS
});

interface PrimeOptions {
  readonly closest: number;
  readonly blades?: number;
  readonly character?: Lens['character'];
}

const prime = (f: number, N: number, options: PrimeOptions, name = `${f} mm f/${N}`, id = `lens-${f}`): Lens =>
  newLens(id, name, {
    shortestMm: f,
    longestMm: f,
    widestFNumber: N,
    closestFocusMm: options.closest,
    blades: options.blades ?? 9,
    character: options.character ?? 'ordinary'
  });

/** Built in, with an aperture that does not change. */
const ofPhone = (f: number, N: number, closestFocusMm: number, name: string, id: string): Lens =>
  newLens(id, name, {
    shortestMm: f,
    longestMm: f,
    widestFNumber: N,
    smallestFNumber: N,
    closestFocusMm,
    mount: builtInMount,
    character: 'crisp'
  });

const zoom = (shortestMm: number, longestMm: number, N: number, closestFocusMm: number): Lens =>
  newLens(`lens-${shortestMm}-${longestMm}`, `${shortestMm}–${longestMm} mm f/${N}`, {
    shortestMm,
    longestMm,
    widestFNumber: N,
    smallestFNumber: 22,
    closestFocusMm
  });

export const builtInKit: Kit = {
  bodies: [
    body('body-main', 'Main body', {
      kind: 'mirrorless',
      sensor: { ...fullFrame, pixelsWide: 7008 },
      focusGrid: wholeFrameGrid,
      stabiliserStops: 5,
      ...exposure(12_800, 1 / 8000, 1 / 200)
    }),
    body('body-second', 'Second body, APS-C', {
      kind: 'slr',
      sensor: { widthMm: 23.5, heightMm: 15.6, pixelsWide: 6000 },
      focusGrid: middleGrid,
      stabiliserStops: 0,
      ...exposure(6400, 1 / 4000, 1 / 200)
    }),
    body('body-full-slr', 'Full-frame SLR', {
      kind: 'slr',
      sensor: { ...fullFrame, pixelsWide: 6016 },
      focusGrid: { ...middleGrid, widthShare: 0.36, heightShare: 0.28 },
      stabiliserStops: 0,
      ...exposure(6400, 1 / 8000, 1 / 250)
    }),
    body('body-phone', 'Phone', {
      kind: 'phone',
      sensor: { widthMm: 9.8, heightMm: 7.3, pixelsWide: 4032 },
      focusGrid: { ...wholeFrameGrid, fine: null, sizes: ['medium'], anywhere: true },
      mount: builtInMount,
      stabiliserStops: 3,
      ...exposure(1600, 1 / 8000, 1 / 200)
    })
  ],
  lenses: [
    prime(35, 1.8, { closest: 250 }),
    prime(50, 1.8, { closest: 450, blades: 7 }),
    prime(85, 1.4, { closest: 800, character: 'crisp', blades: 11 }),
    prime(135, 1.8, { closest: 850, character: 'crisp', blades: 11 }),
    zoom(24, 70, 2.8, 380),
    zoom(70, 200, 2.8, 960),
    prime(50, 1.4, { closest: 450, blades: 6, character: 'weakWideOpen' }, 'Old 50 mm f/1.4', 'lens-old-50'),
    ofPhone(6.8, 1.8, 100, 'Phone, main lens', 'lens-phone'),
    ofPhone(19.6, 2.8, 300, 'Phone, long lens', 'lens-phone-long')
  ],
  adapters: []
};

/** Kit of the user's own over the built-in: an item with a built-in id replaces it. */
export function mergedKit({ bodies = [], lenses = [], adapters = [] }: Partial<Kit>): Kit {
  const merge = <T extends { readonly id: string }>(base: readonly T[], added: readonly T[]): T[] => [
    ...base.map((item) => added.find((other) => other.id === item.id) ?? item),
    ...added.filter((item) => !base.some((other) => other.id === item.id))
  ];
  return {
    bodies: merge(builtInKit.bodies, bodies),
    lenses: merge(builtInKit.lenses, lenses),
    adapters: merge(builtInKit.adapters, adapters)
  };
}
