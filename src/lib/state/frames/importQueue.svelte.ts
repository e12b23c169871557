/** Pictures on their way in: as many at once as memory bears, with progress, pause and stop; each that fails is said. */
import type { PhotoRequest, ReadFrame } from '../../../photos/measurePhoto';
import { errorReason } from '$lib/state/job/services';
import type { GetPhotoReader, PhotoReader } from './photoReader';

/** What became of a picture that was read. */
export type Kept = { readonly kind: 'kept' | 'again' } | { readonly kind: 'refused'; readonly reason: string };

interface Coming extends PhotoRequest {
  readonly file: File;
  /** Keeps what was read of it. @throws when there is no room */
  readonly keep: (read: ReadFrame) => Promise<Kept>;
}

export interface ImportProgress {
  readonly total: number;
  readonly done: number;
  readonly refused: readonly { readonly file: string; readonly reason: string }[];
  /** Already there: the same picture, whatever its name. */
  readonly again: number;
  readonly state: 'running' | 'paused' | 'done' | 'stopped';
}

const none: ImportProgress = { total: 0, done: 0, refused: [], again: 0, state: 'running' };

/** Whether nothing more can be kept: then nothing more is read. */
const noRoom = (error: unknown): boolean => error instanceof Error && /quota/i.test(`${error.name} ${error.message}`);

export class ImportQueue {
  readonly #reading: GetPhotoReader;
  /** Null when nothing is coming, and nobody has yet to be told how it went. */
  now = $state.raw<ImportProgress | null>(null);
  #queue: Coming[] = [];
  #work: Promise<void> | null = null;
  #waiting: (() => void)[] = [];
  #ending = new AbortController();

  constructor(reading: GetPhotoReader) {
    this.#reading = reading;
  }

  add(coming: readonly Coming[]): Promise<void> {
    const before = this.#work ? (this.now ?? none) : none;
    this.#queue.push(...coming);
    this.now = { ...before, total: before.total + coming.length };
    this.#work ??= this.#run();
    return this.#work;
  }
  pause(): void {
    if (this.now?.state === 'running') this.now = { ...this.now, state: 'paused' };
  }
  goOn(): void {
    if (this.now?.state === 'paused') this.now = { ...this.now, state: 'running' };
    this.#wake();
  }
  stop(): void {
    if (!this.#work || !this.now) return;
    this.now = { ...this.now, state: 'stopped' };
    this.#queue = [];
    this.#ending.abort();
    this.#wake();
  }
  /** Resolves once nothing is coming any more. */
  async idle(): Promise<void> {
    await this.#work;
  }
  /** How it went has been read. */
  dismiss(): void {
    if (!this.#work) this.now = null;
  }

  #wake(): void {
    for (const go of this.#waiting.splice(0)) go();
  }

  async #run(): Promise<void> {
    this.#ending = new AbortController();
    try {
      const { atOnce, readPhoto } = await this.#reading();
      await Promise.all(Array.from({ length: atOnce }, () => this.#inTurn(readPhoto, this.#ending.signal)));
    } finally {
      this.#work = null;
      if (this.now && this.now.state !== 'stopped') this.now = { ...this.now, state: 'done' };
    }
  }

  async #inTurn(read: PhotoReader['readPhoto'], signal: AbortSignal): Promise<void> {
    for (let next = this.#queue.shift(); next; next = this.#queue.shift()) {
      if (this.now?.state === 'paused') await new Promise<void>((go) => this.#waiting.push(go));
      if (signal.aborted) return;
      try {
        const answer = await read(next.file, { eyesShare: next.eyesShare, faces: next.faces ?? null }, { signal });
        if (signal.aborted) return;
        this.#tell(next.file, answer.ok ? await next.keep(answer.frame) : { kind: 'refused', reason: answer.reason });
      } catch (error) {
        if (signal.aborted) return;
        this.#tell(next.file, { kind: 'refused', reason: errorReason(error) });
        if (noRoom(error)) this.#queue = [];
      }
    }
  }

  #tell({ name }: File, kept: Kept): void {
    const { now } = this;
    if (!now) return;
    const refused = kept.kind === 'refused' ? [...now.refused, { file: name, reason: kept.reason }] : now.refused;
    this.now = { ...now, done: now.done + 1, again: now.again + (kept.kind === 'again' ? 1 : 0), refused };
  }
}
