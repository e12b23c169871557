/** The way to the workers that read pictures: two at a time, so that memory stays bounded. */
import type { Remote } from 'comlink';
import { fetchWeights, type Weights } from '../../faces/weights';
import type { RemeasuredEye, FrameOfEyes } from '$core/frames/ownEyes';
import { kindOf } from '$core/photos/kind';
import { WorkerClient, type CallOptions } from '../client';
import type { HeicDecoder } from '../heic.worker';
import type { PictureReader } from '../pictures.worker';
import type { DecodedPixels } from '../../photos/openPhoto';
import type { PhotoRequest, PhotoResult, PointRequest, PointResult } from '../../photos/measurePhoto';

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
  readonly client = new WorkerClient<PictureReader>(
    () => new Worker(new URL('../pictures.worker.ts', import.meta.url), { type: 'module' }),
    180_000
  );
  busy = 0;

  /** Once the detector has been handed over. */
  async #ready<T>(options: CallOptions, ask: (api: Remote<PictureReader>) => Promise<T>): Promise<T> {
    this.busy++;
    try {
      const files = await handed();
      await this.client.call((api) => api.start(files), options);
      return await this.client.call<T>(ask, options);
    } finally {
      this.busy--;
    }
  }
  read(file: Blob, asked: PhotoRequest, options: CallOptions): Promise<PhotoResult> {
    return this.#ready<PhotoResult>(options, async (api) => api.read(file, asked));
  }
  point(file: Blob, asked: PointRequest, options: CallOptions): Promise<PointResult> {
    return this.#ready<PointResult>(options, async (api) => api.point(file, asked));
  }
  again(frames: readonly FrameOfEyes[], options: CallOptions): Promise<RemeasuredEye[]> {
    return this.client.call<RemeasuredEye[]>(async (api) => api.again(frames), options);
  }
}

/** Of the kinds a browser may not decode, HEIC alone has a decoder that comes for it. */
const heic = new WorkerClient<HeicDecoder>(
  () => new Worker(new URL('../heic.worker.ts', import.meta.url), { type: 'module' }),
  180_000
);

/** The pixels of a HEIC file; null of every other kind, and of one that cannot be decoded. */
export async function pixelsOf(file: Blob, options: CallOptions): Promise<DecodedPixels | null> {
  const head = new Uint8Array(await file.slice(0, 16).arrayBuffer());
  if (kindOf(head) !== 'heic') return null;
  return heic
    .call<DecodedPixels | null>(async (api) => api.decode(file), options)
    .catch((error: unknown) => {
      if (options.signal?.aborted) throw error;
      return null;
    });
}

const readers = Array.from({ length: atOnce }, () => new Reader());

const free = (): Reader => {
  const [least] = [...readers].sort((a, b) => a.busy - b.busy);
  if (!least) throw new Error('No reader.');
  return least;
};

/** Eyes measured again, held against the same eyes in their sharpest frames. @throws WorkerFailed when no answer will come */
export const measureAgain = (frames: readonly FrameOfEyes[], options: CallOptions = {}): Promise<RemeasuredEye[]> =>
  free().again(frames, options);

/** Everything of one picture. @throws WorkerFailed when it was cancelled, or no answer will come */
export const readPhoto = async (file: Blob, asked: PhotoRequest, options: CallOptions = {}): Promise<PhotoResult> =>
  free().read(file, { ...asked, pixels: await pixelsOf(file, options) }, options);

/** An eye or a thing of a picture that somebody pointed at. @throws WorkerFailed when no answer will come */
export const readPoint = async (file: Blob, asked: PointRequest, options: CallOptions = {}): Promise<PointResult> =>
  free().point(file, { ...asked, pixels: await pixelsOf(file, options) }, options);
