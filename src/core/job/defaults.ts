/** What a new job starts with. */
import type { Job } from './schema';

export function newJob(id: string, name: string, changes: Partial<Job> = {}): Job {
  return { id, name, date: null, notes: '', stopStep: 'third', bagId: null, habits: null, ...changes };
}
