/** The way to the worker that reads files. */
import { proxy } from 'comlink';
import type { CsvRead } from '$core/formats/csv';
import type { JobFileResult } from '$core/formats/jobFile';
import type { LensfunResult } from '$core/formats/lensfun';
import { WorkerClient } from '../client';
import type { Packing } from '../packing';
import type { Files } from '../files.worker';

const files = new WorkerClient<Files>(
  () => new Worker(new URL('../files.worker.ts', import.meta.url), { type: 'module' })
);

type OnProgress = (share: number) => void;

export function readJob(file: File, onProgress: OnProgress, signal?: AbortSignal): Promise<JobFileResult> {
  return files.call(async (api, progress) => api.readJob(file, proxy(progress)), { signal, onProgress });
}

export function readLensDatabase(
  chosen: readonly File[],
  onProgress: OnProgress,
  signal?: AbortSignal
): Promise<LensfunResult[]> {
  return files.call(async (api, progress) => api.readLensfun(chosen, proxy(progress)), { signal, onProgress });
}

/** Packs and unpacks a zip of everything. */
export const packing: Packing = {
  pack: (chosen, onProgress) => files.call((api, progress) => api.pack(chosen, proxy(progress)), { onProgress }),
  unpack: (file, onProgress) => files.call(async (api, progress) => api.unpack(file, proxy(progress)), { onProgress })
};

/** A list of shots as a table, with the encoding it was read in; or, in a sentence, why it cannot be read. */
export function readList(file: File): Promise<{ readonly table: CsvRead; readonly encoding: string } | string> {
  return files.call(async (api) => api.readList(file));
}
