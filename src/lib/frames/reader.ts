/** The way to the workers that read pictures: two at a time, so that memory stays bounded. */
import { fetchWeights, type Weights } from '../../faces/weights';
import { WorkerClient, type CallOptions } from '../../workers/client';
import type { PictureReader } from '../../workers/pictures.worker';
import type { PictureAsked, PictureRead } from '../../faces/readPicture';

/** As many as decode side by side without filling the memory. */
export const atOnce = Math.max(1, Math.min(2, (globalThis.navigator?.hardwareConcurrency ?? 2) - 1));

let weights: Promise<Weights> | undefined;
/** A failure is not kept: the next picture tries again. */
function handed(): Promise<Weights> {
  weights ??= fetchWeights().catch((error: unknown) => {
    weights = undefined;
    throw error;
  });
  return weights;
}

class Reader {
  readonly #client = new WorkerClient<PictureReader>(
    () => new Worker(new URL('../../workers/pictures.worker.ts', import.meta.url), { type: 'module' }),
    180_000
  );
  busy = 0;

  async read(file: Blob, asked: PictureAsked, options: CallOptions): Promise<PictureRead> {
    this.busy++;
    try {
      const files = await handed();
      await this.#client.call((api) => api.start(files), options);
      return await this.#client.call<PictureRead>(async (api) => api.read(file, asked), options);
    } finally {
      this.busy--;
    }
  }
}

const readers = Array.from({ length: atOnce }, () => new Reader());

/** Everything of one picture. @throws WorkerFailed when it was cancelled, or no answer will come */
export function readPicture(file: Blob, asked: PictureAsked, options: CallOptions = {}): Promise<PictureRead> {
  const [free] = [...readers].sort((a, b) => a.busy - b.busy);
  if (!free) throw new Error('No reader.');
  return free.read(file, asked, options);
}
