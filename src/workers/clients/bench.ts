/** The way to the workers of the Bench. */
import { WorkerClient, type CallOptions } from '../client';
import type {
  BenchAsked,
  BenchWorker,
  EdgesOrder,
  EdgesRead,
  FocusOrder,
  FocusRead,
  MarksOrder,
  MarksRead,
  SpotsOrder,
  SpotsRead
} from '../bench.worker';
import type { MarkAt } from '$core/drills/series/fiducials';
import { pixelsOf } from './photos';

/** How many pictures are drawn or read at a time: two workers, so that two cores are used and memory stays bounded. */
export const benchAtOnce = 2;

const workers = Array.from({ length: benchAtOnce }, () => ({
  client: new WorkerClient<BenchWorker>(
    () => new Worker(new URL('../bench.worker.ts', import.meta.url), { type: 'module' }),
    180_000
  ),
  asked: 0
}));

/** The one with the least to do. */
const bench: Pick<WorkerClient<BenchWorker>, 'call'> = {
  async call(ask, options) {
    const free = workers.reduce((least, worker) => (worker.asked < least.asked ? worker : least));
    free.asked++;
    try {
      return await free.client.call(ask, options);
    } finally {
      free.asked--;
    }
  }
};

type Asked = Omit<BenchAsked, 'pixels'>;

export const readFocus = async (file: Blob, asked: Asked, options: CallOptions): Promise<FocusRead> => {
  const pixels = await pixelsOf(file, options);
  return bench.call<FocusRead>(async (api) => api.focus(file, { ...asked, pixels }), options);
};
export const readEdges = async (file: Blob, asked: Asked, options: CallOptions): Promise<EdgesRead> => {
  const pixels = await pixelsOf(file, options);
  return bench.call<EdgesRead>(async (api) => api.edges(file, { ...asked, pixels }), options);
};
export const simulateFocus = (order: FocusOrder, options: CallOptions): Promise<Blob> =>
  bench.call<Blob>(async (api) => api.simulateFocus(order), options);
export const simulateEdges = (order: EdgesOrder, options: CallOptions): Promise<Blob> =>
  bench.call<Blob>(async (api) => api.simulateEdges(order), options);
export const readSpots = async (file: Blob, asked: Asked, options: CallOptions): Promise<SpotsRead> => {
  const pixels = await pixelsOf(file, options);
  return bench.call<SpotsRead>(async (api) => api.spots(file, { ...asked, pixels }), options);
};
export const simulateSpots = (order: SpotsOrder, options: CallOptions): Promise<Blob> =>
  bench.call<Blob>(async (api) => api.simulateSpots(order), options);
/** @param expected where marks lie by other frames */
export const readMarks = async (
  file: Blob,
  asked: Asked,
  expected: readonly MarkAt[],
  options: CallOptions
): Promise<MarksRead> => {
  const pixels = await pixelsOf(file, options);
  return bench.call<MarksRead>(async (api) => api.marks(file, { ...asked, pixels }, expected), options);
};
export const simulateMarks = (order: MarksOrder, options: CallOptions): Promise<Blob> =>
  bench.call<Blob>(async (api) => api.simulateMarks(order), options);
