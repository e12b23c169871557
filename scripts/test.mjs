// npm test: installs what is missing, then lint, types, unit tests, build and end-to-end tests.
import {
  chromium,
  chromiumShell,
  install,
  lensDatabase,
  models,
  poppler,
  run,
  runTogether,
  sharedStore
} from './prepare.mjs';

install();
chromium();
chromiumShell();
poppler();
lensDatabase();
sharedStore();
// Some unit tests look at the figures as they are drawn.
models();
run('Syncing', 'npx', ['svelte-kit', 'sync']);
// Two processors: what reads the sources, and what runs them.
await runTogether(
  [
    [
      'Formatting',
      'npx',
      [
        'prettier',
        '--check',
        '--log-level',
        'warn',
        '--cache',
        '--cache-location',
        '.stamps/prettier',
        '--cache-strategy',
        'content',
        '.'
      ]
    ],
    ['Lint', 'npx', ['eslint', '--cache', '--cache-location', '.stamps/eslint', '--cache-strategy', 'content', '.']],
    ['Names', 'node', ['scripts/names.mjs']],
    ['Folders', 'npx', ['depcruise', 'src', '--config', '.dependency-cruiser.mjs']],
    ['Types', 'npm', ['run', '--silent', 'check']],
    ['Build', 'node', ['scripts/build.mjs']]
  ],
  [['Unit tests', 'npx', ['vitest', 'run']]]
);
// They start what was just built, without looking at the sources again.
run('End-to-end tests', 'npx', ['playwright', 'test'], { FOCALIS_BUILT: '1' });
