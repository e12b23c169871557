/** The renderer off the main thread. */
import { expose, transfer } from 'comlink';
import { LensRenderer } from '../render/lens/lensRenderer';
import { Studio, type Rendering, type RenderingRequest } from '../render/studio';
import { fetchMesh } from './fetchMesh';

export interface Listeners {
  readonly show: (rendering: Rendering) => void;
  readonly failed: (slot: string, reason: string) => void;
  readonly lost: () => void;
}

let studio: Studio | undefined;

const worker = {
  /** False when this machine has no WebGL to draw with. */
  start(show: Listeners['show'], failed: Listeners['failed'], lost: Listeners['lost']): boolean {
    try {
      const canvas = new OffscreenCanvas(64, 64);
      canvas.addEventListener('webglcontextlost', () => lost());
      const moved = (shown: Rendering) => show(transfer(shown, [shown.image]));
      studio = new Studio(new LensRenderer(canvas), fetchMesh, moved, failed);
      return true;
    } catch {
      return false;
    }
  },
  ask(request: RenderingRequest): void {
    studio?.ask(request);
  },
  drop(slot: string): void {
    studio?.drop(slot);
  }
};
export type RendererWorker = typeof worker;

expose(worker);
