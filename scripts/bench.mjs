// npm run bench: bundles the benchmarks as the application is bundled, and runs them on one core.
import { mkdirSync } from 'node:fs';
import { join } from 'node:path';
import { build, chromium, install, models, root, run } from './prepare.mjs';

install();
models();
chromium();
mkdirSync(join(root, '.stamps'), { recursive: true });
const bundle = '.stamps/bench.mjs';
run('Bundling', 'npx', [
  'esbuild',
  'benchmarks/run.ts',
  '--bundle',
  '--platform=node',
  '--format=esm',
  `--outfile=${bundle}`,
  '--log-level=warning'
]);
run('Benchmarks', 'node', [bundle]);
// The renderer is measured in the browser; its page is bundled from the sources as it runs.
build();
run('Benchmarks of a large job', 'npx', ['tsx', 'benchmarks/largeJob.ts'], { FOCALIS_ROOT: root });
run('Benchmarks of the renderer', 'npx', ['tsx', 'benchmarks/render.ts'], { FOCALIS_ROOT: root });
run('Benchmarks of eyes', 'npx', ['tsx', 'benchmarks/eyes.ts']);
run('Benchmarks of pictures', 'npx', ['tsx', 'benchmarks/pictures.ts'], { FOCALIS_ROOT: root });
run('Benchmarks of the Bench', 'npx', ['tsx', 'benchmarks/sheets.ts']);
run('Benchmarks of a cold start', 'npx', ['tsx', 'benchmarks/offlineStart.ts'], { FOCALIS_ROOT: root });
