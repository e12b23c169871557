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

/** A package of scripts that put their names on `this`, which is the module's exports only where there are modules of the older kind. */
const exported = (): Plugin => ({
  name: 'focalis-exported',
  transform(code, id) {
    if (!/node_modules\/js-aruco2\/src\/(aruco|cv)\.js$/.test(id.split('?')[0] ?? id)) return null;
    const changed = code.replace('this.CV || require(', 'require(').replace(/^this\.(AR|CV) = /m, 'exports.$1 = ');
    return { code: changed, map: null };
  }
});

export default defineConfig({
  plugins: [tailwindcss(), sveltekit(), apart, exported()],
  worker: { plugins: () => [exported()] },
  build: {
    chunkSizeWarningLimit: 900,
    rolldownOptions: {
      // Every component of the library names all of it; what is not used has no effect of its own and stays out.
      treeshake: { moduleSideEffects: [{ test: /[\\/](flowbite-svelte|tailwind-variants)[\\/]/, sideEffects: false }] }
    }
  },
  test: {
    passWithNoTests: false,
    reporters: [process.env['CI'] ? 'dot' : 'default', './scripts/slowest-unit.ts'],
    projects: [
      {
        // The computation: plain modules without a browser's anything, so its files share their threads.
        test: {
          name: 'core',
          include: ['src/core/**/*.test.ts'],
          environment: 'node',
          pool: 'threads',
          isolate: false,
          setupFiles: ['src/core/testing/setup.ts'],
          testTimeout: 240_000
        }
      },
      {
        extends: true,
        test: {
          name: 'app',
          include: ['src/**/*.test.ts'],
          exclude: ['src/core/**', 'src/render/**'],
          environment: 'node',
          isolate: false,
          pool: 'threads',
          setupFiles: ['src/core/testing/setup.ts', 'fake-indexeddb/auto'],
          testTimeout: 240_000
        }
      },
      {
        // Their tests put others in the place of modules: what one has in mind is nobody else's.
        extends: true,
        test: {
          name: 'render',
          include: ['src/render/**/*.test.ts'],
          environment: 'node',
          setupFiles: ['src/core/testing/setup.ts'],
          testTimeout: 240_000
        }
      }
    ]
  }
});
