/**
 * Once pictures are in, or somebody was named: every eye held against the same eye in its sharpest frame, beside the main thread. It is
 * worked out from the frames, so it is kept apart from them, and no step of undo.
 */
import { group } from 'd3-array';
import { withRemeasuredEyes, type RemeasuredEye, type FrameOfEyes } from '$core/frames/ownEyes';
import type { Frame } from '$core/frames/schema';
import type { OwnEyes } from '$lib/data';
import type { Services } from '$lib/state/job/services';
import type { GetPhotoReader } from './photoReader';

const none: ReadonlyMap<string, readonly RemeasuredEye[]> = new Map();

export class EyeRemeasuring {
  readonly #parts: Services;
  readonly #reading: GetPhotoReader;
  readonly #shelf: OwnEyes;
  /** By frame. */
  #known = $state.raw(none);
  #asked = new Set<string | null>();
  #work: Promise<void> | null = null;
  /** A frame that has not changed keeps its identity. */
  readonly #merged = new WeakMap<Frame, { readonly again: readonly RemeasuredEye[]; readonly frame: Frame }>();

  constructor(parts: Services, shelf: OwnEyes, reading: GetPhotoReader) {
    this.#parts = parts;
    this.#shelf = shelf;
    this.#reading = reading;
  }

  /** A frame with its eyes as measured again. */
  merged(id: string, frame: Frame): Frame {
    const again = this.#known.get(id);
    if (!again) return frame;
    const before = this.#merged.get(frame);
    if (before?.again === again) return before.frame;
    const merged = withRemeasuredEyes(frame, again);
    this.#merged.set(frame, { again, frame: merged });
    return merged;
  }

  /** A job has been opened: what was worked out of its frames before is read. Without it eyes stand as they were measured alone. */
  async opened(): Promise<void> {
    const owner = this.#parts.open.id;
    this.#known = none;
    const rows = owner === null ? [] : await this.#shelf.of(owner).catch(() => []);
    // What was worked out meanwhile is newer.
    if (rows.length > 0 && this.#parts.open.id === owner)
      this.#known = new Map([...rows.map(({ id, eyes }) => [id, eyes] as const), ...this.#known]);
  }

  /** Of these setups; while some are under way, these come after them. */
  of(setupIds: Iterable<string | null>): Promise<void> {
    for (const id of setupIds) this.#asked.add(id);
    this.#work ??= this.#run().finally(() => (this.#work = null));
    return this.#work;
  }

  async #run(): Promise<void> {
    while (this.#asked.size > 0) {
      const asked = this.#asked;
      this.#asked = new Set();
      const owner = this.#parts.open.id;
      if (owner === null) return;
      const rows = this.#parts.store.table('frames').list.filter(({ value }) => asked.has(value.setupId));
      const frames = rows.map(({ id, value }): FrameOfEyes => {
        const { setupId, faces, enlarged } = this.merged(id, value);
        return { id, setupId, faces, enlarged };
      });
      const found = frames.length < 2 ? [] : await this.#found(frames);
      if (found.length === 0 || this.#parts.open.id !== owner) continue;
      const known = new Map(this.#known);
      for (const [id, again] of group(found, ({ frameId }) => frameId)) {
        const same = (one: RemeasuredEye) =>
          again.some(({ faceId, side }) => faceId === one.faceId && side === one.side);
        const eyes = [...(known.get(id) ?? []).filter((one) => !same(one)), ...again.filter(({ own }) => own !== null)];
        known.set(id, eyes);
        // A full disk keeps none: it is worked out again.
        await this.#shelf.keep({ id, owner, eyes }).catch(() => undefined);
      }
      if (this.#parts.open.id === owner) this.#known = known;
    }
  }

  async #found(frames: readonly FrameOfEyes[]): Promise<readonly RemeasuredEye[]> {
    try {
      return await (await this.#reading()).measureAgain(frames);
    } catch {
      return [];
    }
  }
}
