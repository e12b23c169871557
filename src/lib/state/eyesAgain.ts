/** Once pictures are in, or somebody was named: every eye held against the same eye in its sharpest frame, beside the main thread. */
import { group } from 'd3-array';
import { withEyesAgain, type FrameOfEyes } from '$core/frames/ownEyes';
import type { Frame } from '$core/frames/schema';
import type { Parts } from './parts';
import type { GetReading } from './reading';

export class EyesAgain {
  readonly #parts: Parts;
  readonly #reading: GetReading;
  #asked = new Set<string | null>();
  #work: Promise<void> | null = null;

  constructor(parts: Parts, reading: GetReading) {
    this.#parts = parts;
    this.#reading = reading;
  }

  /** Of these setups; while some are under way, these come after them. What cannot be had stays as it was measured alone. */
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
      const rows = this.#parts.store.table('frames').list.filter(({ value }) => asked.has(value.setupId));
      const frames = rows.map(({ id, value: { setupId, faces } }): FrameOfEyes => ({ id, setupId, faces }));
      const found = frames.length < 2 ? [] : await this.#found(frames);
      if (found.length === 0 || this.#parts.open.id !== owner) continue;
      // What is worked out from what is there is no step of its own: whoever takes names back has it worked out anew.
      this.#parts.store.edit(
        'Eyes measured again',
        (draft) => {
          for (const [id, again] of group(found, ({ frameId }) => frameId))
            draft.change('frames', id, (frame: Frame) => withEyesAgain(frame, again));
        },
        { history: false }
      );
    }
  }

  async #found(frames: readonly FrameOfEyes[]) {
    try {
      return await (await this.#reading()).measureAgain(frames);
    } catch {
      return [];
    }
  }
}
