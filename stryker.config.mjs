/** npm run mutate: which small changes to optics and call the tests would notice. Not part of npm test. */
export default {
  testRunner: 'vitest',
  vitest: { configFile: 'mutation/vitest.config.ts', related: true },
  tsconfigFile: 'mutation/tsconfig.json',
  mutate: process.env.MUTATE
    ? process.env.MUTATE.split(',')
    : ['src/core/optics/**/*.ts', 'src/core/call/**/*.ts', '!src/core/**/*.test.ts'],
  ignorePatterns: [
    '.svelte-kit',
    'build',
    'static',
    'docs',
    'tests',
    'benchmarks',
    'test-results',
    '.stamps',
    'src/lib',
    'src/routes',
    'src/render'
  ],
  coverageAnalysis: 'perTest',
  // Constants that are made once, when a module loads, need all the tests each: asked for by STATIC=1.
  ignoreStatic: !process.env.STATIC,
  // Words are not what is measured here; and the `?.` the compiler asks for at every index can be left out unnoticed by
  // anything, since no such index is ever out of range.
  mutator: { excludedMutations: ['StringLiteral', 'OptionalChaining'] },
  reporters: ['clear-text', 'progress-append-only', 'json'],
  jsonReporter: { fileName: '.stamps/mutation.json' },
  clearTextReporter: { allowColor: false, logTests: false },
  tempDirName: '.stamps/stryker',
  concurrency: 2,
  timeoutMS: 20000,
  allowEmpty: false,
  // Kit's generated tsconfig is not in the sandbox; the tests of the core need none of it.
  buildCommand: 'cp mutation/tsconfig.json tsconfig.json',
  disableTypeChecks: true
};
