/** Reads job files off the main thread. */
import { expose } from 'comlink';
import { readJobFile, type JobFileResult } from '../core/formats/jobFile';

const files = {
  async readJob(file: Blob, onProgress: (share: number) => void): Promise<JobFileResult> {
    return readJobFile(await file.text(), onProgress);
  }
};
export type Files = typeof files;

expose(files);
