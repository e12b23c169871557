import { describe, expect, it } from 'vitest';
import { Latest } from './latest';

describe('latest request', () => {
  it('drops what became stale, unstarted, and answers the newest', async () => {
    const started: number[] = [];
    const open: (() => void)[] = [];
    const latest = new Latest<number, number>(async (input) => {
      started.push(input);
      await new Promise<void>((resolve) => open.push(resolve));
      return input * 10;
    });
    const answers = [1, 2, 3, 4].map((input) => latest.run(input));
    open[0]?.();
    await expect(answers[0]).resolves.toBeUndefined();
    expect(started).toEqual([1, 4]);
    open[1]?.();
    await expect(Promise.all(answers)).resolves.toEqual([undefined, undefined, undefined, 40]);
    const again = latest.run(5);
    open[2]?.();
    await expect(again).resolves.toBe(50);
  });

  it('passes a failure on and goes on', async () => {
    const latest = new Latest<number, number>((input) =>
      input < 0 ? Promise.reject(new Error('negative')) : Promise.resolve(input)
    );
    await expect(latest.run(-1)).rejects.toThrow('negative');
    await expect(latest.run(2)).resolves.toBe(2);
  });
});
