// npm run bench: bundles the benchmarks as the application is bundled, and runs them on one core.
import { mkdirSync } from 'node:fs';
import { join } from 'node:path';
import { install, root, run } from './prepare.mjs';

install();
mkdirSync(join(root, '.stamps'), { recursive: true });
const bundle = '.stamps/bench.mjs';
run('Bundling', 'npx', [
  'esbuild',
  'bench/run.ts',
  '--bundle',
  '--platform=node',
  '--format=esm',
  `--outfile=${bundle}`,
  '--log-level=warning'
]);
run('Benchmarks', 'node', [bundle]);
