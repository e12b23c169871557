import { sveltekit } from '@sveltejs/kit/vite';
import tailwindcss from '@tailwindcss/vite';
import { defineConfig } from 'vitest/config';

export default defineConfig({
  plugins: [tailwindcss(), sveltekit()],
  build: {
    chunkSizeWarningLimit: 900,
    rolldownOptions: {
      // Every component of the library names all of it; what is not used has no effect of its own and stays out.
      treeshake: { moduleSideEffects: [{ test: /[\\/](flowbite-svelte|tailwind-variants)[\\/]/, sideEffects: false }] }
    }
  },
  test: {
    include: ['src/**/*.test.ts'],
    environment: 'node',
    passWithNoTests: false,
    setupFiles: ['src/core/testing/setup.ts', 'fake-indexeddb/auto'],
    testTimeout: 240_000
  }
});
