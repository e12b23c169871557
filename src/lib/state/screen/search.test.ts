import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { Search, slowAfterMs } from './search.svelte';

interface Call {
  readonly asked: string;
  readonly progress: (share: number) => void;
  readonly answer: (found: string) => void;
  readonly fail: (reason: Error) => void;
}
let calls: Call[] = [];
const search = () => {
  return new Search<string, string>(
    (asked, progress) => new Promise((answer, fail) => calls.push({ asked, progress, answer, fail }))
  );
};

beforeEach(() => {
  calls = [];
  vi.useFakeTimers();
});
afterEach(() => void vi.useRealTimers());

describe('a search as a screen sees it', () => {
  it('is busy until it is answered, and says so only when it takes long', async () => {
    const one = search();
    const done = one.ask('a');
    expect(one).toMatchObject({ busy: true, slow: false, answer: null, failure: null });
    vi.advanceTimersByTime(slowAfterMs - 1);
    expect(one.slow).toBe(false);
    vi.advanceTimersByTime(1);
    expect(one.slow).toBe(true);
    calls[0]?.progress(0.4);
    expect(one.progress).toBe(0.4);
    calls[0]?.answer('found');
    await done;
    expect(one).toMatchObject({ busy: false, slow: false, answer: { to: 'a', found: 'found' } });
  });

  it('shows nothing of what was superseded, not its progress, its answer or its failure', async () => {
    const one = search();
    const first = one.ask('a');
    const second = one.ask('b');
    const third = one.ask('c');
    calls[0]?.progress(0.9);
    expect(one.progress).toBe(0);
    calls[0]?.fail(new Error('stale'));
    await Promise.all([first, second]);
    expect(one).toMatchObject({ busy: true, answer: null, failure: null });
    // What was asked between was never begun.
    expect(calls.map((call) => call.asked)).toEqual(['a', 'c']);
    calls[1]?.answer('fresh');
    await third;
    expect(one.answer).toEqual({ to: 'c', found: 'fresh' });
  });

  it('is nobody else’s: another search leaves its question alone', async () => {
    const [one, two] = [search(), search()];
    const mine = one.ask('a');
    const theirs = two.ask('b');
    calls.find((call) => call.asked === 'b')?.answer('theirs');
    await theirs;
    expect(one.busy).toBe(true);
    calls.find((call) => call.asked === 'a')?.answer('mine');
    await mine;
    expect(one.answer?.found).toBe('mine');
  });

  it('counts the time of a row of searches as one', () => {
    const one = search();
    void one.ask('a');
    vi.advanceTimersByTime(slowAfterMs / 2);
    void one.ask('b');
    vi.advanceTimersByTime(slowAfterMs / 2);
    expect(one.slow).toBe(true);
  });

  it('keeps the last answer while it looks again, and after a failure', async () => {
    const one = search();
    const first = one.ask('a');
    calls[0]?.answer('kept');
    await first;
    const second = one.ask('b');
    expect(one.answer?.found).toBe('kept');
    calls[1]?.fail(new Error('no worker'));
    await second;
    expect(one).toMatchObject({ busy: false, failure: 'no worker', answer: { to: 'a', found: 'kept' } });
    void one.ask('c');
    expect(one.failure).toBeNull();
  });

  it('stopped, it hears nothing more', async () => {
    const one = search();
    const asked = one.ask('a');
    one.stop();
    expect(one.busy).toBe(false);
    calls[0]?.answer('late');
    await asked;
    vi.advanceTimersByTime(slowAfterMs * 2);
    expect(one).toMatchObject({ answer: null, slow: false });
  });
});
