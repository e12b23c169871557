/** What a new job starts with. */
import type { Job } from './schema';

export function newJob(id: string, name: string, changes: Partial<Job> = {}): Job {
  const rest = { bagId: null, state: 'open', habits: null } as const;
  return { id, name, date: null, notes: '', stopStep: 'third', ...rest, packing: [], ...changes };
}
