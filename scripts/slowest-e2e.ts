/** The ten slowest end-to-end tests of a run, and those over their limit. */
import type { Reporter, TestCase, TestResult } from '@playwright/test/reporter';

/** On a quiet machine of two cores, s. */
const mostS = 30;

export default class SlowestEndToEnd implements Reporter {
  readonly #took: { readonly name: string; readonly s: number }[] = [];

  onTestEnd(test: TestCase, { duration }: TestResult): void {
    const [, , ...path] = test.titlePath();
    this.#took.push({ name: path.join(' › '), s: duration / 1000 });
  }

  onEnd(): void {
    const slowest = [...this.#took].sort((a, b) => b.s - a.s).slice(0, 10);
    const lines = slowest.map(({ name, s }) => {
      const over = s > mostS ? `  (over its ${mostS} s)` : '';
      return `${s.toFixed(1).padStart(6)} s  ${name}${over}`;
    });
    process.stdout.write(`\nThe ten slowest end-to-end tests:\n${lines.join('\n')}\n`);
  }

  printsToStdio(): boolean {
    return false;
  }
}
