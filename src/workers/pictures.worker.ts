/** Reads pictures off the main thread: what they say, what they show, faces and eyes, and how sharp they are. Nothing leaves. */
import { expose } from 'comlink';
import { measureOwnEyes, type EyeAgain, type FrameOfEyes } from '../core/frames/ownEyes';
import { Detector } from '../faces/detector';
import type { Weights } from '../faces/weights';
import {
  readPicture,
  readPoint,
  type PictureAsked,
  type PictureRead,
  type PointAsked,
  type PointRead
} from '../faces/readPicture';

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
  },
  /** An eye or a thing somebody pointed at. */
  async point(file: Blob, asked: PointAsked): Promise<PointRead> {
    if (!detector) throw new Error('The detector has not been handed over.');
    return readPoint(file, asked, await detector);
  },
  /** Eyes held against the same eyes in their sharpest frames. */
  again: (frames: readonly FrameOfEyes[]): EyeAgain[] => measureOwnEyes(frames)
};
export type PictureReader = typeof pictures;

expose(pictures);
