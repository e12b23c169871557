/** Uniform in 0 ≤ x < 1, again and again: seeded, so that the same can be had again. */
export type Random = () => number;

/** Standard normal deviates from uniform ones, by Box and Muller (1958). */
export const normalFrom =
  (uniform: Random): (() => number) =>
  () =>
    Math.sqrt(-2 * Math.log(1 - uniform())) * Math.cos(2 * Math.PI * uniform());

/** Seeded randomness: the mulberry32 generator (public domain, T. Ettinger). */
export function seededRandom(seed: number): Random {
  let state = seed >>> 0;
  return () => {
    state = (state + 0x6d2b79f5) >>> 0;
    let t = state;
    t = Math.imul(t ^ (t >>> 15), t | 1);
    t ^= t + Math.imul(t ^ (t >>> 7), t | 61);
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296;
  };
}

/** Evenly between two numbers, in steps counted from nought where a step is given. */
export function uniformBetween(random: Random, from: number, to: number, step?: number): number {
  const value = from + (to - from) * random();
  return step === undefined ? value : Math.round(value / step) * step;
}

/** One of some, each as likely. @throws RangeError where there are none */
export function oneOf<T>(random: Random, items: readonly T[]): T {
  const found = items[Math.floor(random() * items.length)];
  if (found === undefined) throw new RangeError('There is nothing to take one of.');
  return found;
}
