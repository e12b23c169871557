import type { Frame } from '$core/frames/schema';

/** A frame of the open job, under its id. */
export interface FrameEntry {
  readonly id: string;
  readonly frame: Frame;
}
