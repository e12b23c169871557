/** Reads pictures off the main thread: what they say, what they show, faces and eyes, and how sharp they are. Nothing leaves. */
import { expose } from 'comlink';
import { measureOwnEyes, type RemeasuredEye, type FrameOfEyes } from '../core/frames/ownEyes';
import { Detector } from '../faces/detector';
import type { Weights } from '../faces/weights';
import {
  measurePhoto,
  measurePoint,
  type PhotoRequest,
  type PhotoResult,
  type PointRequest,
  type PointResult
} from '../photos/measurePhoto';

let detector: Promise<Detector> | undefined;

const pictures = {
  /** Hands over the detector's files: this worker can fetch nothing. */
  async start(weights: Weights): Promise<void> {
    detector ??= Detector.start(weights);
    await detector;
  },
  async read(file: Blob, asked: PhotoRequest): Promise<PhotoResult> {
    if (!detector) throw new Error('The detector has not been handed over.');
    return measurePhoto(file, asked, await detector);
  },
  /** An eye or a thing somebody pointed at. */
  async point(file: Blob, asked: PointRequest): Promise<PointResult> {
    if (!detector) throw new Error('The detector has not been handed over.');
    return measurePoint(file, asked, await detector);
  },
  /** Eyes held against the same eyes in their sharpest frames. */
  again: (frames: readonly FrameOfEyes[]): RemeasuredEye[] => measureOwnEyes(frames)
};
export type PictureReader = typeof pictures;

expose(pictures);
