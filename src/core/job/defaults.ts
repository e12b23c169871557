/** What a new job starts with. */
import { notTaken } from '../setup/schedule';
import type { Job, JobSetup } from './schema';

export function newJob(id: string, name: string, changes: Partial<Job> = {}): Job {
  const rest = { bagId: null, state: 'open', habits: null } as const;
  return { id, name, date: null, notes: '', stopStep: 'third', ...rest, packing: [], clocks: [], ...changes };
}

/** A setup with the day still before it: nothing ticked, nothing done, nothing different. */
export const asBefore = (setup: JobSetup): JobSetup => ({ ...setup, ticked: [], taken: notTaken });
