// The core alone, for npm run mutate: no interface, no SvelteKit.
import { defineConfig } from 'vitest/config';

export default defineConfig({
  test: {
    include: ['src/core/optics/*.test.ts', 'src/core/call/**/*.test.ts'],
    // Random tests try their luck less often here: each runs thousands of times.
    env: { TEST_SHARE: '0.2' },
    environment: 'node',
    // One worker keeps the modules: a mutation is switched on by a variable, not by loading anew.
    isolate: false,
    pool: 'threads',
    setupFiles: ['src/core/testing/setup.ts'],
    testTimeout: 240_000
  }
});
