import { sveltekit } from '@sveltejs/kit/vite';
import tailwindcss from '@tailwindcss/vite';
import type { Plugin } from 'vite';
import { defineConfig } from 'vitest/config';

/** What is fetched only when used has a folder of its own, and so stays out of what is fetched beforehand. */
const apart: Plugin = {
  name: 'focalis-apart',
  outputOptions(options) {
    const usual = options.chunkFileNames;
    if (typeof usual !== 'string' || !usual.startsWith('_app/immutable/')) return null;
    const large = /node_modules\/(plotly|@vladmandic)/;
    const files = options.assetFileNames;
    return {
      ...options,
      assetFileNames: (asset) =>
        asset.originalFileNames.some((name) => /node_modules\/(@vladmandic|@tensorflow)/.test(name))
          ? '_app/immutable/apart/[name].[hash][extname]'
          : typeof files === 'function'
            ? files(asset)
            : (files ?? '_app/immutable/assets/[name].[hash][extname]'),
      chunkFileNames: (chunk) =>
        chunk.moduleIds.some((id) => large.test(id)) ? '_app/immutable/apart/[hash].js' : usual
    };
  }
};

export default defineConfig({
  plugins: [tailwindcss(), sveltekit(), apart],
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
