/** Prints the ten slowest unit tests at the end of every run, and names those over their bound as defects. */
import type { Reporter, TestModule } from 'vitest/node';

/** On a quiet machine of two cores, ms. */
const boundMs = 5000;

export default class Slowest implements Reporter {
  onTestRunEnd(modules: readonly TestModule[]): void {
    const tests = modules.flatMap((module) => [...module.children.allTests()]);
    const slowest = tests
      .map((test) => ({
        ms: test.diagnostic()?.duration ?? 0,
        name: `${test.module.relativeModuleId} › ${test.fullName}`
      }))
      .sort((a, b) => b.ms - a.ms)
      .slice(0, 10);
    const line = ({ ms, name }: { readonly ms: number; readonly name: string }) =>
      `${(ms / 1000).toFixed(1).padStart(6)} s  ${name}${ms > boundMs ? '  (over its 5 s)' : ''}`;
    process.stdout.write(`\nThe ten slowest unit tests:\n${slowest.map(line).join('\n')}\n`);
  }
}
