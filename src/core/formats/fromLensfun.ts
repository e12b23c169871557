/** Entries of a lens database as kit, with what is usual for all the database does not say. */
import type { BodyEntry, LensEntry } from './lensfun';
import { newBody, newLens, usualClosestMm } from '../kit/defaults';
import type { Body, Lens } from '../kit/schema';

/** Diagonal of the full frame, mm. */
const fullDiagonalMm = Math.hypot(36, 24);

/** A body of an entry: the crop factor is all the database says of its sensor; 3 : 2 unless its mount is known for 4 : 3. */
export function bodyFrom(entry: BodyEntry, id: string): Body {
  const diagonal = fullDiagonalMm / entry.cropFactor;
  const [long, short] = /4\/3/.test(entry.mount) ? [4, 3] : [3, 2];
  const scale = diagonal / Math.hypot(long, short);
  const tidy = (mm: number) => Math.round(mm * 100) / 100;
  const sensor = { widthMm: tidy(long * scale), heightMm: tidy(short * scale), pixelsWide: 6000 };
  return newBody(id, entry.name, { sensor, mount: entry.mount, alsoTakes: [...entry.alsoTakes] });
}

/**
 * A lens of an entry, with the opening somebody gave where the database has none.
 *
 * @param widest nominal mark, 0.5 to 128; the entry's own when left out
 * @throws when nobody has said the widest opening
 */
export function lensFrom(entry: LensEntry, id: string, widest = entry.widestFNumber): Lens {
  if (widest === null) throw new Error(`The widest opening of ${entry.name} is missing.`);
  const { shortestMm, longestMm, widestAtLong } = entry;
  const smallest = Math.max(entry.smallestFNumber ?? (longestMm > shortestMm ? 22 : 16), widest);
  return newLens(id, entry.name, {
    shortestMm,
    longestMm,
    widestFNumber: widest,
    widestAtLong,
    smallestFNumber: Math.max(smallest, widestAtLong ?? 0),
    closestFocusMm: Math.max(10, usualClosestMm(shortestMm, longestMm)),
    mount: entry.mounts[0] ?? ''
  });
}
