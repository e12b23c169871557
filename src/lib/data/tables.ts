/** The tables of Focalis. */
import { benchTestSchema, type BenchTest } from '$core/bench/schema';
import { bagSchema, type Bag } from '$core/kit/bags';
import { adapterSchema, bodySchema, lensSchema, type Adapter, type Body, type Lens } from '$core/kit/schema';
import {
  jobPersonSchema,
  jobPlaceSchema,
  jobSchema,
  jobSetupSchema,
  type Job,
  type JobPerson,
  type JobPlace,
  type JobSetup
} from '$core/job/schema';
import { drillRowSchema, type DrillRow } from '$core/drills/schema';
import { frameSchema, type Frame } from '$core/frames/schema';
import { handoffSchema, type Handoff } from './handoff';
import { profileSchema, type Profile } from './profile';
import type { Descriptor, Descriptors } from './rows';

export type FocalisValues = {
  readonly profile: Profile;
  readonly jobs: Job;
  readonly people: JobPerson;
  readonly places: JobPlace;
  readonly setups: JobSetup;
  readonly bodies: Body;
  readonly lenses: Lens;
  readonly adapters: Adapter;
  readonly bags: Bag;
  readonly benchTests: BenchTest;
  readonly drills: DrillRow;
  readonly journeys: Handoff;
  readonly frames: Frame;
};

const alone = <V>(noun: string, schema: Descriptor<V>['schema']): Descriptor<V> => ({ schema, noun, ownedBy: null });
const ofJob = <V>(noun: string, schema: Descriptor<V>['schema']): Descriptor<V> => ({ schema, noun, ownedBy: 'jobs' });

export const tables: Descriptors<FocalisValues> = {
  profile: alone('settings', profileSchema as Descriptor<Profile>['schema']),
  jobs: alone('job', jobSchema),
  bodies: alone('body', bodySchema as Descriptor<Body>['schema']),
  lenses: alone('lens', lensSchema as Descriptor<Lens>['schema']),
  adapters: alone('adapter', adapterSchema as Descriptor<Adapter>['schema']),
  bags: alone('bag', bagSchema),
  benchTests: alone('test', benchTestSchema),
  drills: alone('drill', drillRowSchema),
  people: ofJob('person', jobPersonSchema),
  places: ofJob('place', jobPlaceSchema),
  setups: ofJob('setup', jobSetupSchema),
  journeys: ofJob('way to another device', handoffSchema),
  frames: ofJob('frame', frameSchema)
};
