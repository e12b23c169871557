import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { Coalesced } from './coalesce';

beforeEach(() => void vi.useFakeTimers());
afterEach(() => void vi.useRealTimers());

describe('moves of the pointer', () => {
  it('are worked on after the task they come in, the newest alone', () => {
    const done: number[][] = [];
    const paced = new Coalesced((x: number, y: number) => void done.push([x, y]));
    paced.push(1, 1);
    paced.push(2, 2);
    expect(done).toEqual([]);
    vi.runAllTimers();
    expect(done).toEqual([[2, 2]]);
    paced.push(3, 3);
    vi.runAllTimers();
    expect(done).toEqual([
      [2, 2],
      [3, 3]
    ]);
  });

  it('are worked on at once when the drag ends, and not again', () => {
    const done: number[] = [];
    const paced = new Coalesced((x: number) => void done.push(x));
    paced.flush();
    paced.push(7);
    paced.flush();
    expect(done).toEqual([7]);
    vi.runAllTimers();
    expect(done).toEqual([7]);
  });
});
