/**
 * Steps from one version of what is stored to the next. Each is frozen code between two frozen schemas: data is checked
 * against the schema of the version it claims, and only then taken further, so no step ever guesses. A release that
 * changes the schema freezes the one before it and adds a step here, a Dexie version that runs it (src/lib/data/upgrade.ts)
 * and a file of the old version to the tests.
 */
import type { z } from 'zod';
import { jobFile1to2, setup1to2 } from './from1to2';
import { jobFile2to3, setup2to3 } from './from2to3';
import { jobFileSchema1, setupSchema1 } from './schema1';
import { jobFileSchema as jobFileSchema2, setupSchema as setupSchema2 } from './schema2';

/** The version written today. */
export const currentVersion = 3;

type Renewed =
  { readonly ok: true; readonly data: unknown } | { readonly ok: false; readonly issue: z.core.$ZodIssue | undefined };

function renewed<T>(schema: z.ZodType<T>, data: unknown, step: (parsed: T) => unknown): Renewed {
  const parsed = schema.safeParse(data);
  return parsed.success ? { ok: true, data: step(parsed.data) } : { ok: false, issue: parsed.error.issues[0] };
}

/** A job file of an earlier version as one of today, not yet checked against today's schema; or why it is none. */
export function renewJobFile(data: unknown, version: number): Renewed {
  switch (version) {
    case 1:
      return renewed(jobFileSchema1, data, (file) => jobFile2to3(jobFile1to2(file)));
    case 2:
      return renewed(jobFileSchema2, data, jobFile2to3);
    default:
      return { ok: true, data };
  }
}

/** The same for a setup as it is planned, with people and place of its own. */
export function renewSetup(data: unknown, version: number): Renewed {
  switch (version) {
    case 1:
      return renewed(setupSchema1, data, (setup) => setup2to3(setup1to2(setup)));
    case 2:
      return renewed(setupSchema2, data, setup2to3);
    default:
      return { ok: true, data };
  }
}
