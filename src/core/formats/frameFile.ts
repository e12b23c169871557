/** Measured frames of a job as one JSON document of an archive; the small pictures of them are files beside it. */
import { z } from 'zod';
import { frameSchema, type Frame } from '../frames/schema';
import { id } from '../schema/values';
import { readDocument, type RefusedDocument } from './document';

const format = 'focalis-frames';
const version = 1;

/** Longest text read, characters: about 10,000 frames of a large group. */
const maxFrameFileLength = 150_000_000;

/** A frame with what is to be seen of it; null where nothing is kept. */
export interface ArchivedFrame<P> {
  readonly frame: Frame;
  readonly position: number;
  readonly seen: {
    readonly thumbnail: P;
    /** The XMP sidecar that came with it, as it was. */
    readonly sidecar: string | null;
    readonly crops: readonly { readonly faceId: string; readonly picture: P }[];
  } | null;
}

export interface ArchivedFrames<P> {
  readonly jobId: string;
  readonly frames: readonly ArchivedFrame<P>[];
}

const name = z.string().max(200);
const frameFileSchema = z.strictObject({
  format: z.literal(format),
  version: z.literal(version),
  jobId: id,
  frames: z
    .array(
      z.strictObject({
        frame: frameSchema,
        position: z.number(),
        seen: z
          .strictObject({
            thumbnail: name,
            sidecar: z.string().max(2_000_000).nullable(),
            crops: z.array(z.strictObject({ faceId: id, picture: name })).max(200)
          })
          .nullable()
      })
    )
    .max(100_000)
    .refine((frames) => new Set(frames.map(({ frame }) => frame.id)).size === frames.length, 'two frames share an id')
});

export type FrameFile = ArchivedFrames<string>;

/** @param frames with the names of their pictures' files in place of the pictures */
export const writeFrameFile = ({ jobId, frames }: FrameFile): string =>
  JSON.stringify({ format, version, jobId, frames });

const kind = { format, version, noun: 'file of frames', most: maxFrameFileLength, schema: frameFileSchema };

/** Reads all of it, or says which field is wrong and why. */
export function readFrameFile(text: string): { readonly ok: true; readonly file: FrameFile } | RefusedDocument {
  const read = readDocument(text, kind);
  return read.ok ? { ok: true, file: read.data } : read;
}
