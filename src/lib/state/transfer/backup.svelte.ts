/** Everything in one file, and out of it again: added to what is here, or in its place. */
import { refusedWords } from '$core/words/refused';
import { writeArchive, type Archive } from '$core/formats/archive';
import { restoreWords, type RestoreHow } from '$core/job/restoring';
import type { Kit } from '$core/kit/schema';
import type { ArchivedFrames } from '$core/formats/frameFile';
import {
  readJobParts,
  readTableRows,
  tables,
  untouchedDemos,
  type Change,
  type FramePictures,
  type RecordRepository,
  type Row,
  type Thumbnails
} from '$lib/data';
import { errorReason, type Services } from '$lib/state/job/services';
import type { Packing } from '../../../workers/packing';
import { restoring, travelling } from './restoring';

const dayMs = 24 * 3600 * 1000;
/** A backup is asked for after so long without one; and again so long after one said "later" (my choice). */
const remindAfterMs = 14 * dayMs;
const laterMs = 7 * dayMs;

const recordWords = (count: number): string =>
  count === 1 ? 'One frame comes to the record.' : `${count} frames come to the record.`;

export interface Restorable {
  readonly archive: Archive<Blob>;
  readonly how: RestoreHow;
  readonly changes: readonly Change[];
  readonly words: readonly string[];
  /** Nothing would change. */
  readonly idle: boolean;
}

/** What is kept beside the rows. */
interface KeptApart {
  readonly thumbnails: Thumbnails;
  readonly record: RecordRepository;
  readonly framePictures: FramePictures;
}

export class Backup {
  readonly #parts: Services;
  readonly #thumbnails: Thumbnails;
  readonly #packing: Packing;
  readonly #record: RecordRepository;
  readonly #framePictures: FramePictures;
  /** What is under way, in words; empty when nothing is. */
  busy = $state('');
  share = $state(0);

  constructor(parts: Services, kept: KeptApart, packing: Packing) {
    this.#record = kept.record;
    this.#parts = parts;
    this.#thumbnails = kept.thumbnails;
    this.#framePictures = kept.framePictures;
    this.#packing = packing;
  }

  /** When everything was last saved, ms; null for never. */
  get at(): number | null {
    return this.#parts.settings.now.backedUpAt;
  }

  /** Whether a backup is to be asked for: there is work, and it has been long. */
  get due(): boolean {
    const { remindAt } = this.#parts.settings.now;
    return remindAt !== null && this.#parts.now() > remindAt;
  }

  later(): void {
    this.#parts.settings.set({ remindAt: this.#parts.now() + laterMs });
  }

  /** Begins to count once there is something of one's own. */
  async watch(): Promise<void> {
    const { database, store, settings, now } = this.#parts;
    if (settings.now.remindAt !== null) return;
    const untouched = await untouchedDemos(database);
    const own = store.table('jobs').list.some((row) => row.removedAt === null && !untouched.includes(row.id));
    if (own) settings.set({ remindAt: now() + remindAfterMs });
  }

  /** Everything as one file; null, with a message, when it cannot be made. */
  save(): Promise<Blob | null> {
    return this.#doing('Backing up', 'back up', async () => {
      const { store, database, settings, now, open } = this.#parts;
      await store.flush();
      const rows = store.table('jobs').list.filter((row) => row.removedAt === null);
      const jobs = await Promise.all(
        rows.map(async (row) => ({
          file: { job: row.value, kit: noKit, ...(await readJobParts(database, row.id)) },
          position: row.position
        }))
      );
      const values = <V>(list: readonly Row<V>[]) => list.map((row) => row.value);
      const kit = {
        bodies: values(store.table('bodies').list),
        lenses: values(store.table('lenses').list),
        adapters: values(store.table('adapters').list)
      };
      const savedAt = new Date(now()).toISOString();
      const bags = values(store.table('bags').list);
      const benchTests = values(store.table('benchTests').list);
      const drills = values(store.table('drills').list);
      const pictures = await this.#thumbnails.all();
      const record = await this.#record.all();
      const frames = await this.#framesOf(rows.map((row) => row.id));
      const archive = {
        savedAt,
        frames,
        settings: travelling(settings.now),
        kit,
        bags,
        jobs,
        pictures,
        record,
        benchTests,
        drills
      };
      const blob = await this.#packing.pack(writeArchive(archive, open.kit, settings.now.habits), this.#progress);
      settings.set({ backedUpAt: now(), remindAt: now() + remindAfterMs });
      return blob;
    });
  }

  async #framesOf(jobIds: readonly string[]): Promise<ArchivedFrames<Blob>[]> {
    const { database } = this.#parts;
    const all: ArchivedFrames<Blob>[] = [];
    for (const jobId of jobIds) {
      const { rows } = await readTableRows(database, 'frames', tables.frames, jobId);
      if (rows.length === 0) continue;
      const frames: ArchivedFrames<Blob>['frames'][number][] = [];
      for (const { id, position, value } of rows.filter((row) => row.removedAt === null)) {
        const seen = (await this.#framePictures.get(id)) ?? null;
        frames.push({
          frame: value,
          position,
          seen: seen && { thumbnail: seen.thumbnail, sidecar: seen.sidecar, crops: seen.crops }
        });
      }
      all.push({ jobId, frames });
    }
    return all;
  }

  /** Reads a file and says what taking it would change; a sentence when it cannot be read. */
  async look(file: Blob, how: RestoreHow): Promise<Restorable | string> {
    const result = await this.#doing('Reading the backup', 'read the backup', () =>
      this.#packing.unpack(file, this.#progress)
    );
    if (result === null) return 'It can’t be read.';
    return result.ok ? this.weigh(result.archive, how) : result.reason;
  }

  /** What taking it this way would change; a sentence when it cannot be taken. */
  async weigh(archive: Archive<Blob>, how: RestoreHow): Promise<Restorable | string> {
    try {
      return await this.#weighed(archive, how);
    } catch (error) {
      return errorReason(error);
    }
  }

  async #weighed(archive: Archive<Blob>, how: RestoreHow): Promise<Restorable> {
    await this.#parts.store.flush();
    const { changes, counts } = await restoring(this.#parts, archive, how);
    const measured = await this.#record.missing(archive.record);
    const words = [...restoreWords(counts), ...(measured > 0 ? [recordWords(measured)] : [])];
    return { archive, how, changes, words, idle: changes.length === 0 && measured === 0 };
  }

  /** Takes it, as one step that can be undone. True when it was taken; nothing has changed when it was not. */
  async restore({ archive, how }: Restorable): Promise<boolean> {
    const { store, messages } = this.#parts;
    const done = await this.#doing('Restoring', 'restore the backup', async () => {
      await store.flush();
      // As it is now: something may have been edited since one looked.
      const { changes, counts } = await restoring(this.#parts, archive, how);
      const step = changes.length > 0 ? await store.apply('Restored', changes) : null;
      for (const { key, drawnFrom, picture } of archive.pictures)
        if ((await this.#thumbnails.kept(key, drawnFrom)) === null)
          await this.#thumbnails.keep({ key, drawnFrom, picture });
      await this.#keepSeen(archive.frames);
      // The record only ever grows by it: what is here stays.
      const measured = await this.#record.add(archive.record);
      const words = [...restoreWords(counts), ...(measured > 0 ? [recordWords(measured)] : [])];
      messages.done(`Restored. ${words.join(' ')}`, step);
      return true;
    });
    return done ?? false;
  }

  /** What is to be seen of frames that are here now and have nothing to be seen of them. */
  async #keepSeen(ofJobs: Archive<Blob>['frames']): Promise<void> {
    for (const { jobId, frames } of ofJobs ?? [])
      for (const { frame, seen } of frames)
        if (seen && !(await this.#framePictures.get(frame.id)))
          await this.#framePictures.keep({ id: frame.id, owner: jobId, ...seen });
  }

  readonly #progress = (share: number) => void (this.share = share);

  async #doing<T>(what: string, failed: string, work: () => Promise<T>): Promise<T | null> {
    if (this.busy !== '') return null;
    this.busy = what;
    this.share = 0;
    try {
      return await work();
    } catch (error) {
      this.#parts.messages.problem(refusedWords(failed, errorReason(error)));
      return null;
    } finally {
      this.busy = '';
    }
  }
}

const noKit: Kit = { bodies: [], lenses: [], adapters: [] };
