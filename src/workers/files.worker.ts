/** Reads files off the main thread. */
import { expose } from 'comlink';
import { readZip, zipped } from './zip';
import type { ArchiveResult } from '../core/formats/archive';
import { decoded, type CsvRead } from '../core/formats/csv';
import { readShotTable } from '../core/formats/shotList';
import { readJobFile, type JobFileResult } from '../core/formats/jobFile';
import { maxLensfunBytes, readLensfun, type LensfunResult } from '../core/formats/lensfun';

/** Largest list read, bytes. */
const maxListBytes = 20_000_000;

const files = {
  /** Files as one zip. */
  pack: zipped,

  /** What is in a zip of everything, or why it is none. */
  async unpack(file: Blob, onProgress: (share: number) => void): Promise<ArchiveResult<Blob>> {
    return readZip(file, onProgress);
  },

  /** A list of shots as a table, in whatever encoding; or why it is none. */
  async readList(file: Blob): Promise<{ readonly table: CsvRead; readonly encoding: string } | string> {
    if (file.size > maxListBytes) return `The file has ${Math.round(file.size / 1e6)} MB; a list has at most 20 MB.`;
    const { text, encoding } = decoded(new Uint8Array(await file.arrayBuffer()));
    const table = readShotTable(text);
    return typeof table === 'string' ? table : { table, encoding };
  },

  async readJob(file: Blob, onProgress: (share: number) => void): Promise<JobFileResult> {
    return readJobFile(await file.text(), onProgress);
  },

  /** Lens database files, one result each in their order. */
  async readLensfun(files: readonly File[], onProgress: (share: number) => void): Promise<LensfunResult[]> {
    const results: LensfunResult[] = [];
    let left = maxLensfunBytes;
    for (const [index, file] of files.entries()) {
      left -= file.size;
      // What is too large is not even read.
      results.push(
        left < 0
          ? { ok: false, reason: `All files together have more than ${maxLensfunBytes / 1e6} MB.` }
          : readLensfun(await file.text())
      );
      onProgress((index + 1) / files.length);
    }
    return results;
  }
};
export type Files = typeof files;

expose(files);
