/** Plain descriptions of common kit, enough to start with. Closest focus, blades and character: common practice. */
import type { Body, Kit, Lens } from './schema';

const fullFrame = { widthMm: 36, heightMm: 24 } as const;

const body = (id: string, name: string, rest: Omit<Body, 'id' | 'name'>): Body => ({ id, name, ...rest });

/** Grids of points (common practice, no source): nearly the whole frame, or its middle. */
const wholeFrame = { columns: 13, rows: 9, widthShare: 0.92, heightShare: 0.9 } as const;
const middle = { columns: 11, rows: 5, widthShare: 0.5, heightShare: 0.34 } as const;

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

const prime = (f: number, N: number, options: PrimeOptions, name = `${f} mm f/${N}`, id = `lens-${f}`): Lens => ({
  id,
  name,
  shortestMm: f,
  longestMm: f,
  widestFNumber: N,
  smallestFNumber: 16,
  closestFocusMm: options.closest,
  blades: options.blades ?? 9,
  character: options.character ?? 'ordinary'
});

const zoom = (shortestMm: number, longestMm: number, N: number, closestFocusMm: number): Lens => ({
  id: `lens-${shortestMm}-${longestMm}`,
  name: `${shortestMm}–${longestMm} mm f/${N}`,
  shortestMm,
  longestMm,
  widestFNumber: N,
  smallestFNumber: 22,
  closestFocusMm,
  blades: 9,
  character: 'ordinary'
});

export const builtInKit: Kit = {
  bodies: [
    body('body-main', 'Main body', {
      kind: 'mirrorless',
      sensor: { ...fullFrame, pixelsWide: 7008 },
      focusGrid: wholeFrame,
      stabiliserStops: 5,
      ...exposure(12_800, 1 / 8000, 1 / 200)
    }),
    body('body-second', 'Second body, APS-C', {
      kind: 'slr',
      sensor: { widthMm: 23.5, heightMm: 15.6, pixelsWide: 6000 },
      focusGrid: middle,
      stabiliserStops: 0,
      ...exposure(6400, 1 / 4000, 1 / 200)
    }),
    body('body-full-slr', 'Full-frame SLR', {
      kind: 'slr',
      sensor: { ...fullFrame, pixelsWide: 6016 },
      focusGrid: { ...middle, widthShare: 0.36, heightShare: 0.28 },
      stabiliserStops: 0,
      ...exposure(6400, 1 / 8000, 1 / 250)
    })
  ],
  lenses: [
    prime(35, 1.8, { closest: 250 }),
    prime(50, 1.8, { closest: 450, blades: 7 }),
    prime(85, 1.4, { closest: 800, character: 'crisp', blades: 11 }),
    prime(135, 1.8, { closest: 850, character: 'crisp', blades: 11 }),
    zoom(24, 70, 2.8, 380),
    zoom(70, 200, 2.8, 960),
    prime(50, 1.4, { closest: 450, blades: 6, character: 'weakWideOpen' }, 'Old 50 mm f/1.4', 'lens-old-50')
  ]
};

/** Kit of the user's own over the built-in: an item with a built-in id replaces it. */
export function mergedKit(own: Kit): Kit {
  const merge = <T extends { readonly id: string }>(base: readonly T[], added: readonly T[]): T[] => [
    ...base.map((item) => added.find((other) => other.id === item.id) ?? item),
    ...added.filter((item) => !base.some((other) => other.id === item.id))
  ];
  return { bodies: merge(builtInKit.bodies, own.bodies), lenses: merge(builtInKit.lenses, own.lenses) };
}
