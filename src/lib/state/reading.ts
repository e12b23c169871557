/** What reads and measures pictures, off the main thread. */
import type { EyeAgain, FrameOfEyes } from '$core/frames/ownEyes';
import type { PictureAsked, PictureRead, PointAsked, PointRead } from '../../faces/readPicture';

interface Stopping {
  readonly signal?: AbortSignal;
}

export interface Reading {
  /** How many pictures are read at a time. */
  readonly atOnce: number;
  readonly readPicture: (file: Blob, asked: PictureAsked, options: Stopping) => Promise<PictureRead>;
  readonly readPoint: (file: Blob, asked: PointAsked) => Promise<PointRead>;
  readonly measureAgain: (frames: readonly FrameOfEyes[]) => Promise<readonly EyeAgain[]>;
}

/** Fetched when pictures come. */
export type GetReading = () => Promise<Reading>;

export const inWorkers: GetReading = () => import('../frames/reader');
