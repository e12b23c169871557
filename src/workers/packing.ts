import type { ArchiveFile, ArchiveResult } from '../core/formats/archive';

/** The way to the worker that packs and unpacks. */
export interface Packing {
  readonly pack: (files: readonly ArchiveFile<Blob>[], onProgress: (share: number) => void) => Promise<Blob>;
  readonly unpack: (file: Blob, onProgress: (share: number) => void) => Promise<ArchiveResult<Blob>>;
}
