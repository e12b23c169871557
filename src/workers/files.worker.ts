/** Reads files off the main thread. */
import { expose } from 'comlink';
import { readJobFile, type JobFileResult } from '../core/formats/jobFile';
import { maxLensfunBytes, readLensfun, type LensfunResult } from '../core/formats/lensfun';

const files = {
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
