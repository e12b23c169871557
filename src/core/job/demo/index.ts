/** The demo jobs as shipped. Everything in them is invented. */
import { newJob } from '../defaults';
import { asPartOfJob, type JobParts, type NewPlace } from '../normalise';
import type { Job } from '../schema';
import type { Setup } from '../../setup/schema';
import { fernhallSetups } from './fernhall';
import { quaysideSetups } from './quayside';

interface DemoJob {
  readonly job: Job;
  /** Where it all takes place; each setup has of its own what differs there. */
  readonly place: NewPlace;
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
      place: { id: 'demo-glasshouse', name: 'Palm house' },
      setups: fernhallSetups()
    },
    {
      job: newJob('demo-quayside', 'Quayside Brass', {
        date: '2027-09-04',
        notes: 'Forty years of a band: everybody on the bandstand at four, then the sections, then the oldest tuba.'
      }),
      place: { id: 'demo-bandstand', name: 'Bandstand' },
      setups: quaysideSetups()
    }
  ];
}

/** A demo job as it is stored: everybody named once. */
export function demoParts({ place, setups }: DemoJob): JobParts {
  const parts: JobParts[] = [];
  for (const setup of setups) {
    const at = parts[0]?.places[0] ?? place;
    parts.push(asPartOfJob(setup, at));
  }
  const people = new Map(parts.flatMap((part) => part.people.map((person) => [person.id, person] as const)));
  return {
    people: [...people.values()],
    places: parts.flatMap((part) => part.places),
    setups: parts.flatMap((part) => part.setups)
  };
}
