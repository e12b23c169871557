/** What reads and measures pictures, off the main thread. */
import type { RemeasuredEye, FrameOfEyes } from '$core/frames/ownEyes';
import type { PhotoRequest, PhotoResult, PointRequest, PointResult } from '../../../photos/measurePhoto';

interface Stopping {
  readonly signal?: AbortSignal;
}

export interface PhotoReader {
  /** How many pictures are read at a time. */
  readonly atOnce: number;
  readonly readPhoto: (file: Blob, asked: PhotoRequest, options: Stopping) => Promise<PhotoResult>;
  readonly readPoint: (file: Blob, asked: PointRequest) => Promise<PointResult>;
  readonly measureAgain: (frames: readonly FrameOfEyes[]) => Promise<readonly RemeasuredEye[]>;
}

/** Fetched when pictures come. */
export type GetPhotoReader = () => Promise<PhotoReader>;

export const inWorkers: GetPhotoReader = () => import('../../../workers/clients/photos');
