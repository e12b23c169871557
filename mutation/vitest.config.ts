// The core alone, for npm run mutate: no interface, no SvelteKit.
import { defineConfig } from 'vitest/config';

export default defineConfig({
  test: {
    include: ['src/core/**/*.test.ts'],
    environment: 'node',
    setupFiles: ['src/core/testing/setup.ts'],
    testTimeout: 240_000
  }
});
