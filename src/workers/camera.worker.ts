/** The simulated camera off the main thread: draws a frame, counts its light, writes the file. */
import { expose } from 'comlink';
import { withMetadata, type FrameFacts } from '../core/simulation/metadata';
import { normalFrom, seededRandom } from '../core/maths/random';
import { exposeFrame, type Exposed, type FrameOrder } from '../render/exposeFrame';
import { LensRenderer } from '../render/lens/lensRenderer';
import { fetchMesh } from './fetchMesh';

export interface FrameAsked extends FrameOrder {
  readonly seed: number;
  readonly facts: FrameFacts;
  /** JPEG, 0 to 1. */
  readonly quality: number;
}

export interface FrameMade extends Omit<Exposed, 'bytes'> {
  readonly file: Blob;
}

let renderer: LensRenderer | undefined;

const camera = {
  /** @throws when this machine has no WebGL to draw with */
  async take({ seed, facts, quality, ...order }: FrameAsked, progress: (share: number) => void): Promise<FrameMade> {
    renderer ??= new LensRenderer(new OffscreenCanvas(64, 64));
    const { bytes, ...exposed } = await exposeFrame(
      renderer,
      fetchMesh,
      order,
      normalFrom(seededRandom(seed)),
      progress
    );
    const canvas = new OffscreenCanvas(exposed.width, exposed.height);
    canvas.getContext('2d')?.putImageData(new ImageData(bytes, exposed.width, exposed.height), 0, 0);
    const jpeg = await canvas.convertToBlob({ type: 'image/jpeg', quality });
    const known = { ...facts, full: exposed.full };
    const file = withMetadata(new Uint8Array(await jpeg.arrayBuffer()), known);
    return { ...exposed, file: new Blob([file], { type: 'image/jpeg' }) };
  }
};
export type CameraWorker = typeof camera;

expose(camera);
