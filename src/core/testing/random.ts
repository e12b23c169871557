/** Seeded randomness for tests and benchmarks. */
import { normalFrom, seededRandom } from '../maths/random';

export { seededRandom };

/** Standard normal deviates. */
export const seededNormal = (seed: number): (() => number) => normalFrom(seededRandom(seed));
