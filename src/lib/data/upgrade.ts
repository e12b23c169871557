/**
 * The store of earlier versions brought up to date: frozen steps between frozen schemas. What does not fit its schema is
 * set aside as it is and named; everything else comes along.
 */
import type { Transaction } from 'dexie';
import type { z } from 'zod';
import { body1to2, setup1to2 } from '$core/formats/versions/from1to2';
import { job2to3, setups2to3 } from '$core/formats/versions/from2to3';
import { bodySchema1, setupSchema1 } from '$core/formats/versions/schema1';
import { bodySchema, jobSchema, lensSchema, setupSchema, type Setup } from '$core/formats/versions/schema2';
import { issueField, issueReason } from '$core/formats/issues';
import { merge } from '$core/plain/merge';
import { journalPrefix } from './journal';
import type { SafeStorage } from './storage';

interface AsideRow {
  readonly key: string;
  readonly table: string;
  readonly id: string;
  readonly reason: string;
  readonly raw: unknown;
}

type Old = Readonly<Record<string, unknown>>;
const record = (value: unknown): Old => (typeof value === 'object' && value !== null ? (value as Old) : {});

/** Version 2: shoulders, kinds of picture, looks, focus grids. What does not fit is left for the next step to set aside. */
export async function upgradeTo2(change: Transaction): Promise<void> {
  await change
    .table<Old>('setups')
    .toCollection()
    .modify((row, ref) => {
      const parsed = setupSchema1.safeParse(row['setup']);
      if (parsed.success) ref.value = { ...row, setup: setup1to2(parsed.data) };
    });
  await change
    .table<Old>('bodies')
    .toCollection()
    .modify((row, ref) => {
      const parsed = bodySchema1.safeParse(row);
      if (parsed.success) ref.value = body1to2(parsed.data);
    });
}

/** Version 3: people and places of the job; every row in the one frame. */
export async function upgradeTo3(change: Transaction, storage: SafeStorage): Promise<void> {
  const aside: AsideRow[] = [];
  const sound = <T>(table: string, id: unknown, schema: z.ZodType<T>, value: unknown, raw: unknown): T | null => {
    const parsed = schema.safeParse(value);
    if (parsed.success) return parsed.data;
    const issue = parsed.error.issues[0];
    const reason = [issueField(issue), issueReason(issue)].filter((part) => part !== '').join(': ');
    aside.push({ key: `${table}/${String(id)}`, table, id: String(id), reason, raw });
    return null;
  };
  const old = async (table: string) => (await change.table<unknown>(table).toArray()).map(record);

  const bodies = await old('bodies');
  const lenses = await old('lenses');
  const jobs = await old('jobs');
  const setups = withJournals(await old('setups'), storage);

  const settings = record((await old('settings')).find((row) => row['key'] === 'profile')?.['value']);
  const offered = (await old('settings')).find((row) => row['key'] === 'demoOffered')?.['value'];
  const framed = (id: string, value: unknown, rest: object = {}) => ({
    id,
    owner: null,
    position: 0,
    updatedAt: 1,
    removedAt: null,
    ...rest,
    value
  });

  const kitRows = <T extends { readonly id: string }>(table: string, schema: z.ZodType<T>, rows: readonly Old[]) =>
    rows.flatMap((row, position) => {
      const value = sound(table, row['id'], schema, row, row);
      return value ? [framed(value.id, value, { position })] : [];
    });
  const newBodies = kitRows('bodies', bodySchema, bodies);
  const newLenses = kitRows('lenses', lensSchema, lenses);
  const number = (value: unknown, otherwise: number) => (typeof value === 'number' ? value : otherwise);
  const newJobs = jobs.flatMap((row, index) => {
    const job = sound('jobs', row['id'], jobSchema, row['job'], row);
    return job ? [framed(job.id, job2to3(job), { position: number(row['createdAt'], index) })] : [];
  });

  const taken = new Set<string>();
  const newPeople: object[] = [];
  const newPlaces: object[] = [];
  const newSetups: object[] = [];
  const owners = new Set(setups.map((row) => String(row['jobId'])));
  for (const owner of owners) {
    const own = setups
      .filter((row) => String(row['jobId']) === owner)
      .map((row) => ({ row, position: number(row['position'], 0) }))
      .sort((a, b) => a.position - b.position)
      .flatMap(({ row, position }): { position: number; setup: Setup }[] => {
        const setup = sound('setups', row['id'], setupSchema, row['setup'], row);
        return setup ? [{ setup, position }] : [];
      });
    const parts = setups2to3(
      own.map((item) => item.setup),
      taken
    );
    newPeople.push(...parts.people.map((value, position) => framed(value.id, value, { owner, position })));
    newPlaces.push(...parts.places.map((value, position) => framed(value.id, value, { owner, position })));
    newSetups.push(
      ...parts.setups.map((value, index) => framed(value.id, value, { owner, position: own[index]?.position ?? index }))
    );
  }

  const replace = async (table: string, rows: readonly object[]) => {
    await change.table(table).clear();
    await change.table(table).bulkPut(rows);
  };
  await replace('bodies', newBodies);
  await replace('lenses', newLenses);
  await replace('jobs', newJobs);
  await replace('people', newPeople);
  await replace('places', newPlaces);
  await replace('setups', newSetups);
  const typed = journalsOf(storage).reduce((all, journal) => ({ ...all, ...record(journal['settings']) }), {});
  await change.table('profile').put(framed('profile', { ...settings, ...typed, demoOffered: offered === true }));
  await change.table('aside').bulkPut(aside);
}

/** Setups with the last edits of pages of versions 1 and 2 that the store had not confirmed. */
function withJournals(setups: readonly Old[], storage: SafeStorage): readonly Old[] {
  const rows = new Map(setups.map((row) => [row['id'], row]));
  for (const { version, changes } of journalsOf(storage)) {
    const renewed = (row: Old): Old | null => {
      if (version !== 1) return row;
      const parsed = setupSchema1.safeParse(row['setup']);
      return parsed.success ? { ...row, setup: setup1to2(parsed.data) } : null;
    };
    for (const { table, before, after } of (Array.isArray(changes) ? changes : []).map(record)) {
      if (table !== 'setups' || !before || !after) continue;
      const was = renewed(record(before));
      const is = renewed(record(after));
      if (!was || !is || !setupSchema.safeParse(is['setup']).success) continue;
      const stored = rows.get(is['id']);
      rows.set(is['id'], stored ? merge(was, is, stored) : is);
    }
  }
  return [...rows.values()];
}

/** Journals of versions 1 and 2; version 1 wrote the bare list of changes. */
function journalsOf(storage: SafeStorage): readonly Old[] {
  return storage.keys(journalPrefix).flatMap((key) => {
    const journal = oldJournal(storage.get(key) ?? '');
    return journal ? [journal] : [];
  });
}

function oldJournal(text: string): Old | null {
  try {
    const stored: unknown = JSON.parse(text);
    if (Array.isArray(stored)) return { version: 1, changes: stored };
    const { version } = record(stored);
    return version === 1 || version === 2 ? record(stored) : null;
  } catch {
    return null;
  }
}

/** Forgets journals the upgrade has read; call it once the upgraded store is open. */
export function forgetOldJournals(storage: SafeStorage): void {
  for (const key of storage.keys(journalPrefix)) {
    if (oldJournal(storage.get(key) ?? '')) storage.remove(key);
  }
}
