/** The demo jobs as shipped. Everything in them is invented. */
import { newJob } from '../defaults';
import type { Job, Setup } from '../schema';
import { fernhallSetups } from './fernhall';
import { quaysideSetups } from './quayside';

export interface DemoJob {
  readonly job: Job;
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
      setups: fernhallSetups()
    },
    {
      job: newJob('demo-quayside', 'Quayside Brass', {
        date: '2027-09-04',
        notes: 'Forty years of a band: everybody on the bandstand at four, then the sections, then the oldest tuba.'
      }),
      setups: quaysideSetups()
    }
  ];
}

/** Every demo setup by its name; for tests and benchmarks. */
export function demoSetup(name: string): Setup {
  const found = demoJobs().flatMap(({ setups }) => setups.filter((setup) => setup.name === name))[0];
  if (!found) throw new Error(`The demo has no setup "${name}".`);
  return found;
}
