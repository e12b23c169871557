import adapter from '@sveltejs/adapter-node';
import { vitePreprocess } from '@sveltejs/vite-plugin-svelte';

/** @type {import('@sveltejs/kit').Config} */
const config = {
  preprocess: vitePreprocess(),
  compilerOptions: { runes: ({ filename }) => (filename.includes('node_modules') ? undefined : true) },
  kit: {
    adapter: adapter({ precompress: true }),
    alias: { $core: 'src/core' },
    typescript: { config: (config) => ({ ...config, include: [...config.include, '../benchmarks/**/*.ts'] }) },
    // The page built beforehand serves every address: what it loads is named from the root.
    paths: { relative: false },
    // Registered by the page itself, which says when a new version waits (src/lib/shell/offline).
    serviceWorker: { register: false },
    // Every write comes with a body that is no form: src/hooks.server.ts refuses the others, in the words of the API.
    csrf: { trustedOrigins: ['*'] },
    csp: {
      // Kit's one start-up script is known by its hash; nothing else inline may run, and nothing may leave the origin.
      mode: 'hash',
      directives: {
        'default-src': ['none'],
        'script-src': ['self'],
        'style-src': ['self'],
        // Attributes of elements: nothing of a user's is ever put into one.
        'style-src-attr': ['unsafe-inline'],
        'img-src': ['self', 'data:', 'blob:'],
        'font-src': ['self'],
        'connect-src': ['self'],
        'worker-src': ['self', 'blob:'],
        'manifest-src': ['self'],
        'base-uri': ['none'],
        'form-action': ['self'],
        'frame-ancestors': ['none'],
        'object-src': ['none']
      }
    }
  }
};

export default config;
