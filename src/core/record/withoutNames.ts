/** The record as strangers may read it, and as it stays once its job is erased: numbers, and nobody's name. */
import { hideNames } from '../setup/withoutNames';
import type { Recorded } from './schema';

/** Everybody is called by their place in the frame, and their names are taken out of the setup's. */
export function recordWithoutNames(frames: readonly Recorded[]): Recorded[] {
  const names = frames.flatMap(({ people }) => people.map(({ name }) => name)).filter((name) => !isNumbered(name));
  const hidden = new Map<string, string>();
  const setupOf = (name: string) => {
    const known = hidden.get(name) ?? hideNames(name, names);
    hidden.set(name, known);
    return known;
  };
  return frames.map((frame) => ({
    ...frame,
    setup: setupOf(frame.setup),
    people: frame.people.map((person, index) => ({ ...person, name: `Person ${index + 1}` }))
  }));
}

const isNumbered = (name: string): boolean => /^Person \d+$/.test(name);
