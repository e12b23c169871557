/** The demo jobs as shipped. Everything in them is invented. */
import { newJob } from '../defaults';
import { asPartOfJob, type JobParts, type NewPlace } from '../normalise';
import type { Job } from '../schema';
import type { Setup } from '../../setup/schema';
import { fernhallPlace, fernhallSetups } from './fernhall';
import { quaysideSetups } from './quayside';

interface DemoJob {
  readonly job: Job;
  /** Where a setup is taken, by its id; it has of its own what differs from the first setup there. */
  readonly placeOf: (setupId: string) => NewPlace;
  readonly setups: readonly Setup[];
}

/** Jobs and setups with the ids they are shipped under; copies loaded again get ids of their own. */
export function demoJobs(): readonly [DemoJob, DemoJob] {
  return [
    {
      job: newJob('demo-fernhall', 'Fernhall Glasshouse', {
        date: '2027-06-12',
        notes: 'A wedding of Ines and Tobiah in a palm house: nave 24 m by 9 m, iron columns, steps at the east end.'
      }),
      placeOf: fernhallPlace,
      setups: fernhallSetups()
    },
    {
      job: newJob('demo-quayside', 'Quayside Brass', {
        date: '2027-09-04',
        notes: 'Forty years of a band: everyone on the bandstand at four, then the sections, then the oldest tuba.'
      }),
      placeOf: () => ({ id: 'demo-bandstand', name: 'Bandstand' }),
      setups: quaysideSetups()
    }
  ];
}

/** A demo job as it is stored: everybody named once. */
export function demoParts({ placeOf, setups }: DemoJob): JobParts {
  const parts: JobParts[] = [];
  for (const setup of setups) {
    const place = placeOf(setup.id);
    const known = parts.flatMap((part) => part.places).find((item) => item.id === place.id);
    parts.push(asPartOfJob(setup, known ?? place));
  }
  const people = new Map(parts.flatMap((part) => part.people.map((person) => [person.id, person] as const)));
  return {
    people: [...people.values()],
    places: parts.flatMap((part) => part.places),
    setups: parts.flatMap((part) => part.setups)
  };
}
