/** Names of what nobody has named yet: what it is, with the first number nobody has. */
import type { Person } from './schema';
import { backgroundKinds, surfaces, type Surface } from './backgroundKinds';

/** "Adult 3": the base with the first number nobody has. */
export function numbered(base: string, taken: Iterable<string>, from = 1): string {
  const names = new Set(taken);
  for (let n = from; ; n++) if (!names.has(`${base} ${n}`)) return `${base} ${n}`;
}

export const beingNames: Readonly<Record<Person['being'], string>> = {
  adult: 'Adult',
  child: 'Child',
  baby: 'Baby',
  pet: 'Pet'
};

/** A name nobody has given: somebody called so goes with the last picture they stand in. */
export const unnamed = /^(Person|Adult|Child|Baby|Pet) \d+$/;

/** Whether a background still has the name it came with. */
export function isPlainName(name: string): boolean {
  return (
    /^Background( \d+)?$/.test(name) ||
    surfaces.some((surface) => backgroundKinds[surface].noun === name.replace(/ \d+$/, ''))
  );
}

/** "leaves", "leaves 2" where there are some already. */
export function surfaceName(surface: Surface, taken: Iterable<string>): string {
  const name = backgroundKinds[surface].noun;
  const names = new Set(taken);
  return names.has(name) ? numbered(name, names, 2) : name;
}
