import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import type { Remote } from 'comlink';
import { WorkerClient, WorkerFailed } from './client';

/** A worker that does nothing by itself. */
class FakeWorker extends EventTarget {
  terminated = false;
  postMessage = () => undefined;
  terminate = () => void (this.terminated = true);
}

interface Api {
  work(): Promise<number>;
}

let workers: FakeWorker[] = [];
const client = (silentMs = 1000) =>
  new WorkerClient<Api>(() => {
    const worker = new FakeWorker();
    workers.push(worker);
    return worker as unknown as Worker;
  }, silentMs);
const never = () => new Promise<number>(() => undefined);
const failure = (kind: string) => expect.objectContaining({ kind });

beforeEach(() => {
  workers = [];
  vi.useFakeTimers();
});
afterEach(() => void vi.useRealTimers());

describe('a worker', () => {
  it('is started when first asked, and then serves every question', async () => {
    const one = client();
    expect(workers).toHaveLength(0);
    const seen: Remote<Api>[] = [];
    const answers = [1, 2].map((value) =>
      one.call((api) => {
        seen.push(api);
        return Promise.resolve(value);
      })
    );
    expect(await Promise.all(answers)).toEqual([1, 2]);
    expect(workers).toHaveLength(1);
    expect(seen[0]).toBe(seen[1]);
  });

  it('that crashes fails every question it had; the next one starts another', async () => {
    const one = client();
    const asked = [one.call(never), one.call(never)].map((answer) => answer.catch((error: unknown) => error));
    workers[0]?.dispatchEvent(new Event('error'));
    expect(await Promise.all(asked)).toEqual([failure('crashed'), failure('crashed')]);
    expect(workers[0]?.terminated).toBe(true);
    expect(await one.call(() => Promise.resolve(3))).toBe(3);
    expect(workers).toHaveLength(2);
  });

  it('that falls silent is given up; one that shows progress is not', async () => {
    const one = client(1000);
    let alive: (share: number) => void = () => undefined;
    const asked = one
      .call((_, sign) => {
        alive = sign;
        return never();
      })
      .catch((error: unknown) => error);
    for (let i = 0; i < 3; i++) {
      vi.advanceTimersByTime(900);
      alive(0.5);
    }
    expect(workers[0]?.terminated).toBe(false);
    vi.advanceTimersByTime(1000);
    expect(await asked).toBeInstanceOf(WorkerFailed);
    expect(await asked).toEqual(failure('silent'));
    expect(workers[0]?.terminated).toBe(true);
  });

  it('idle is never given up', async () => {
    const one = client(1000);
    await one.call(() => Promise.resolve(1));
    vi.advanceTimersByTime(5000);
    expect(workers[0]?.terminated).toBe(false);
  });

  it('passes on what the work itself throws, and goes on', async () => {
    const one = client();
    await expect(one.call(() => Promise.reject(new Error('no such lens')))).rejects.toThrow('no such lens');
    expect(await one.call(() => Promise.resolve(1))).toBe(1);
    expect(workers).toHaveLength(1);
  });

  it('ends at once when its only question is given up, and not when others wait', async () => {
    const one = client();
    const [first, second] = [new AbortController(), new AbortController()];
    const asked = [first, second].map(({ signal }) => one.call(never, { signal }).catch((error: unknown) => error));
    first.abort();
    expect(await asked[0]).toEqual(failure('cancelled'));
    expect(workers[0]?.terminated).toBe(false);
    second.abort();
    expect(await asked[1]).toEqual(failure('cancelled'));
    expect(workers[0]?.terminated).toBe(true);
    await expect(one.call(never, { signal: AbortSignal.abort() })).rejects.toEqual(failure('cancelled'));
  });

  it('reports progress, and none after the answer', async () => {
    const reported: number[] = [];
    let late: (share: number) => void = () => undefined;
    const one = client();
    await one.call(
      (_, progress) => {
        progress(0.5);
        late = progress;
        return Promise.resolve(1);
      },
      { onProgress: (share) => void reported.push(share) }
    );
    late(1);
    expect(reported).toEqual([0.5]);
  });
});
