/** The way to the worker that reads files. */
import { proxy } from 'comlink';
import type { JobFileResult } from '$core/formats/jobFile';
import { WorkerClient } from '../../workers/client';
import type { Files } from '../../workers/files.worker';

const files = new WorkerClient<Files>(
  () => new Worker(new URL('../../workers/files.worker.ts', import.meta.url), { type: 'module' })
);

export function readJob(file: File, onProgress: (share: number) => void, signal?: AbortSignal): Promise<JobFileResult> {
  return files.call(async (api, progress) => api.readJob(file, proxy(progress)), { signal, onProgress });
}
