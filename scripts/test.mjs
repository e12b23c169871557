// npm test: installs what is missing, then lint, types, unit tests, build and end-to-end tests.
import { build, chromium, install, run } from './prepare.mjs';

install();
chromium();
run('Syncing', 'npx', ['svelte-kit', 'sync']);
run('Formatting', 'npx', ['prettier', '--check', '--log-level', 'warn', '.']);
run('Lint', 'npx', ['eslint', '.']);
run('Types', 'npm', ['run', '--silent', 'check']);
run('Unit tests', 'npx', ['vitest', 'run']);
build();
run('End-to-end tests', 'npx', ['playwright', 'test']);
