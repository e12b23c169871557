/** A job's way to another device and back: the key both have, and how it left, as a job file. */
import { z } from 'zod';

export const handoffSchema = z.strictObject({
  /** Sent from here, or come here. */
  side: z.enum(['sent', 'came']),
  key: z.string(),
  /** The job's id where it was sent from; here it may have another. */
  jobId: z.string(),
  at: z.iso.datetime(),
  /** How the two sides last agreed, as the text of a job file. */
  base: z.string()
});

export type Handoff = z.infer<typeof handoffSchema>;
