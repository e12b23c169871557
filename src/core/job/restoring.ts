/** What taking everything out of an archive would change, counted, before anything is changed. */

/** How an archive is taken: what is missing is added, or all becomes as it is there. */
export type RestoreHow = 'merge' | 'replace';

interface Told {
  readonly added: number;
  readonly changed: number;
  readonly removed: number;
}

/** Changes by what they are about; null for settings that stay. */
export interface RestoreWords {
  readonly jobs: Told;
  readonly setups: Told;
  readonly frames: Told;
  readonly kit: Told;
  readonly settings: boolean;
}

const plural = (count: number, one: string) => `${count} ${one}${count === 1 ? '' : 's'}`;

function told(one: string, { added, changed, removed }: Told, gone: string): string[] {
  return [
    ...(added > 0 ? [`${plural(added, one)} added`] : []),
    ...(changed > 0 ? [`${plural(changed, one)} changed`] : []),
    ...(removed > 0 ? [`${plural(removed, one)} ${gone}`] : [])
  ];
}

/** Sentences such as "2 jobs added, 1 job put away."; one that says so where nothing changes. */
export function restoreWords({ jobs, setups, frames, kit, settings }: RestoreWords): string[] {
  const lines = [
    told('job', jobs, 'put away for thirty days'),
    told('setup', setups, 'removed'),
    told('frame', frames, 'removed'),
    told('piece', kit, 'removed').map((part) => part.replace(/pieces? /, (piece) => `${piece}of kit `)),
    settings ? ['settings as they are there'] : []
  ].filter((parts) => parts.length > 0);
  if (lines.length === 0) return ['Nothing would change: all of it is here already.'];
  return lines.map((parts) => {
    const text = parts.join(', ');
    return `${text.charAt(0).toUpperCase()}${text.slice(1)}.`;
  });
}
