/** A setup as strangers may read it: nobody in it is called by their name. */
import type { Setup } from './schema';

/** What stands in text where a name was. */
const someone = 'someone';

/** A text with every one of these names taken out, the longest first. */
export function hideNames(text: string, names: readonly string[]): string {
  return [...new Set(names)]
    .filter((name) => name !== '')
    .sort((a, b) => b.length - a.length)
    .reduce((left, name) => left.replaceAll(new RegExp(wholeWord(name), 'giu'), someone), text);
}

/**
 * Everybody is called by their place among the others ("Person 3"), and their names, and those of `others` at the job, are taken out
 * of the setup's own name and its notes. What else those say of people stays as it is.
 */
export function withoutNames(setup: Setup, others: readonly string[] = []): Setup {
  const names = [...setup.people.map((person) => person.name), ...others];
  return {
    ...setup,
    name: hideNames(setup.name, names),
    notes: hideNames(setup.notes, names),
    people: setup.people.map((person, index) => ({ ...person, name: `Person ${index + 1}`, role: '' }))
  };
}

/** A name as a word of its own: "Ines" is not in "Inessa". */
const wholeWord = (name: string): string =>
  `(?<![\\p{L}\\p{N}])${name.replaceAll(/[\\^$.*+?()[\]{}|]/g, '\\$&')}(?![\\p{L}\\p{N}])`;
