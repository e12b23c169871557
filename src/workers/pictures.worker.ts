/** Reads pictures off the main thread: what they say, what they show, faces and eyes, and how sharp they are. Nothing leaves. */
import { expose } from 'comlink';
import { Detector } from '../faces/detector';
import type { Weights } from '../faces/weights';
import { readPicture, type PictureAsked, type PictureRead } from '../faces/readPicture';

let detector: Promise<Detector> | undefined;

const pictures = {
  /** Hands over the detector's files: this worker can fetch nothing. */
  async start(weights: Weights): Promise<void> {
    detector ??= Detector.start(weights);
    await detector;
  },
  async read(file: Blob, asked: PictureAsked): Promise<PictureRead> {
    if (!detector) throw new Error('The detector has not been handed over.');
    return readPicture(file, asked, await detector);
  }
};
export type PictureReader = typeof pictures;

expose(pictures);
