/**
 * Movement while the shutter was open. A disc blurs in all directions alike, a movement in one; but so do rims of glasses, lids and the
 * side the light comes from, each eye in its own way. So one eye is hardly enough: a head moves both of its eyes alike, the camera
 * every eye of the frame, and how likely that is decides.
 */
import { sum } from 'd3-array';
import { evidenceShare, fitAt, problemOf, rare, transferTable, type Expected } from './fit';
import { discs } from './discs';
import { band, sectors, spectrumFrequencies, type Spectrum } from './spectrum';

export interface Smear {
  /** Its length, pixels. */
  readonly px: number;
  /** Its direction, radians, 0 to π: 0 across, growing downwards. */
  readonly angle: number;
}

/** A movement, and how much better it explains what is seen than a disc alone, as a logarithm of chances. */
export interface MovementFound extends Smear {
  readonly gain: number;
}

const lengths = [3.5, 5, 7, 10, 14, 20] as const;
const angles = 8;
/** A movement may come with some defocus: a few discs are enough to tell. */
const besides = [0, 12, 32] as const;

/** Transfer of the power of a straight movement, averaged over a sector of directions. */
function movementPower({ px, angle }: Smear, sector: number, nu: number): number {
  const parts = 7;
  let power = 0;
  for (let part = 0; part < parts; part++) {
    const direction = (Math.PI / sectors) * (sector + (part + 0.5) / parts - 0.5);
    const x = Math.PI * px * nu * Math.cos(direction - angle);
    power += Math.abs(x) < 1e-6 ? 1 : (Math.sin(x) / x) ** 2;
  }
  return power / parts;
}

/** The movements tried. */
const movements: readonly Smear[] = lengths.flatMap((px) =>
  Array.from({ length: angles }, (_, index) => ({ px, angle: (Math.PI * index) / angles }))
);

/** What each leaves, by sector and bin, with each of the discs beside it. */
const tables = movements.map((movement) => {
  const alone = Float64Array.from({ length: sectors * band.bins }, (_, at) =>
    Math.log(
      Math.max(1e-5, movementPower(movement, Math.floor(at / band.bins), spectrumFrequencies[at % band.bins] ?? 0.1))
    )
  );
  return besides.map((disc) => alone.map((log, at) => log + (transferTable[disc]?.[at % band.bins] ?? 0)));
});

/** How much better each of the movements explains a spectrum than a disc alone, as a logarithm of chances. */
export type Evidence = Float64Array;

/**
 * @param sectorSd how far the power of an eye lies from what is expected, direction by direction: a standard deviation of its logarithm
 * @returns null where there is nothing to fit
 */
export function movementEvidence(spectrum: Spectrum, expected: Expected, sectorSd = strangersSd): Evidence | null {
  const problem = problemOf(spectrum, expected);
  if (!problem) return null;
  let still = Infinity;
  let { start } = problem;
  for (let disc = 0; disc < discs.length; disc += 4) {
    const found = fitAt(problem, transferTable[disc] ?? [], start, sectorSd);
    start = found.at;
    still = Math.min(still, found.cost + rare(disc));
  }
  return Float64Array.from(tables, (table) => {
    let least = Infinity;
    let from = problem.start;
    for (const [index, transfer] of table.entries()) {
      const { at, cost } = fitAt(problem, transfer, from, sectorSd);
      from = at;
      least = Math.min(least, cost + rare(besides[index] ?? 0));
    }
    return 0.5 * evidenceShare * (still - least);
  });
}

/** Strangers' eyes differ by so much from direction to direction (chosen on `scripts/movements.ts` among 0, 0.4, 0.7, 1.2). */
const strangersSd = 0.7;

/** The movement that explains all of these best, and how likely any is against none: averaged over those tried. */
export function likeliestMovement(seen: readonly Evidence[]): MovementFound | null {
  if (seen.length === 0) return null;
  const together = movements.map((_, at) => sum(seen, (evidence) => evidence[at] ?? 0));
  const most = Math.max(...together);
  const likeliest = movements[together.indexOf(most)];
  const gain = most + Math.log(sum(together, (one) => Math.exp(one - most)) / together.length);
  return likeliest ? { ...likeliest, gain } : null;
}

/**
 * Who moved in a frame, from even chances on (chosen on `scripts/movements.ts`): by face, each with the evidence of its eyes. The camera
 * moved where one movement explains all better than each of them for itself does, or none.
 */
export function movementsIn(faces: readonly (readonly Evidence[])[]): (MovementFound | null)[] {
  const each = faces.map((eyes) => {
    const found = likeliestMovement(eyes);
    return found && found.gain > 0 ? found : null;
  });
  const shake = faces.length > 1 ? likeliestMovement(faces.flat()) : null;
  const apart = sum(each, (found) => found?.gain ?? 0);
  return shake && shake.gain > apart ? faces.map((eyes) => (eyes.length > 0 ? shake : null)) : each;
}
