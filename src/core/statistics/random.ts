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
