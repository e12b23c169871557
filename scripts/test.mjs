// npm test: installs what is missing, then lint, types, unit tests, build and end-to-end tests.
import { chromium, install, lensDatabase, models, poppler, run, runTogether, sharedStore } from './prepare.mjs';

install();
chromium();
poppler();
lensDatabase();
sharedStore();
// Some unit tests look at the figures as they are drawn.
models();
run('Syncing', 'npx', ['svelte-kit', 'sync']);
// Two processors: what reads the sources, and what runs them.
await runTogether(
  [
    ['Formatting', 'npx', ['prettier', '--check', '--log-level', 'warn', '.']],
    ['Lint', 'npx', ['eslint', '.']],
    ['Folders', 'npx', ['depcruise', 'src', '--config', '.dependency-cruiser.mjs']],
    ['Types', 'npm', ['run', '--silent', 'check']],
    ['Build', 'node', ['scripts/build.mjs']]
  ],
  [['Unit tests', 'npx', ['vitest', 'run']]]
);
run('End-to-end tests', 'npx', ['playwright', 'test']);
