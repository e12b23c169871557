// What start and test share: install and build when they are out of date, told by stamps, and nothing when they are not.
import { execFileSync, spawn, spawnSync } from 'node:child_process';
import { createHash } from 'node:crypto';
import { existsSync, mkdirSync, readFileSync, readdirSync, statSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';

export const root = fileURLToPath(new URL('..', import.meta.url));
const stamps = join(root, '.stamps');

function filesBelow(path) {
  if (!existsSync(path)) return [];
  if (statSync(path).isFile()) return [path];
  return readdirSync(path)
    .sort()
    .flatMap((name) => filesBelow(join(path, name)));
}

function fingerprint(paths, by = process.version) {
  const hash = createHash('sha256').update(by);
  for (const file of paths.flatMap((path) => filesBelow(join(root, path)))) {
    hash.update(file.slice(root.length)).update('\0').update(readFileSync(file));
  }
  return hash.digest('hex');
}

function unless(name, paths, present, work) {
  const stamp = join(stamps, name);
  const now = fingerprint(paths);
  if (present && existsSync(stamp) && readFileSync(stamp, 'utf8') === now) return;
  work();
  mkdirSync(stamps, { recursive: true });
  writeFileSync(stamp, now);
}

/** Runs a command in the project's folder and stops everything when it fails. */
export function run(title, command, args, env = {}) {
  console.log(`\n— ${title}`);
  const result = spawnSync(command, args, { cwd: root, stdio: 'inherit', env: { ...process.env, ...env } });
  if (result.status !== 0) {
    console.error(`${title} failed.`);
    process.exit(result.status ?? 1);
  }
}

function finish(title, command, args) {
  return new Promise((resolve) => {
    const child = spawn(command, args, { cwd: root, stdio: ['ignore', 'pipe', 'pipe'] });
    let output = '';
    for (const stream of [child.stdout, child.stderr]) stream.on('data', (text) => (output += text));
    child.on('error', (error) => resolve({ title, output: String(error), code: 1 }));
    child.on('close', (code) => resolve({ title, output, code: code ?? 1 }));
  });
}

/** Runs rows of commands beside each other, each row in order; prints each command's output once it has ended. */
export async function runTogether(...rows) {
  const row = async (steps) => {
    for (const [title, command, args] of steps) {
      const { output, code } = await finish(title, command, args);
      console.log(`\n— ${title}\n${output.trimEnd()}`);
      if (code === 0) continue;
      console.error(`${title} failed.`);
      process.exit(code);
    }
  };
  await Promise.all(rows.map(row));
}

export function install() {
  unless(
    'install',
    ['package.json', 'package-lock.json'],
    existsSync(join(root, 'node_modules/.package-lock.json')),
    () =>
      // Not `npm ci`: it refuses a lock file written where the registry lacks other systems' optional packages.
      run('Installing packages', 'npm', ['install', '--no-save', '--no-audit', '--no-fund', '--loglevel=error'])
  );
}

const modelSources = ['src/modelling', 'src/render/scene/meshFile.ts', 'src/core/people/anatomy.ts'];
const madeFrom = join(root, 'static/models/made-from.txt');

/** Whether the figures are those of their descriptions: they ship with the project. */
export const modelsAreCurrent = () =>
  existsSync(madeFrom) && readFileSync(madeFrom, 'utf8').trim() === fingerprint(modelSources, '');

/** The figures of the Finder, polygonised from their descriptions where these have changed since. */
export function models() {
  if (modelsAreCurrent()) return;
  mkdirSync(stamps, { recursive: true });
  const bundle = join(stamps, 'models.mjs');
  const options = ['--bundle', '--platform=node', '--format=esm', `--outfile=${bundle}`, '--log-level=warning'];
  run('Modelling the figures', 'npx', ['esbuild', 'src/modelling/build.ts', ...options]);
  run('Writing them', 'node', [bundle, join(root, 'static/models')]);
  writeFileSync(madeFrom, `${fingerprint(modelSources, '')}\n`);
}

/** What runs in front of Kit, and the thread that plans. */
export function bundleServer() {
  const options = ['--bundle', '--platform=node', '--format=esm', '--log-level=warning'];
  for (const [source, name] of [
    ['serve', 'serve'],
    ['start', 'start'],
    ['planWorker', 'plan.worker']
  ]) {
    run(`Building ${name}`, 'npx', ['esbuild', `src/server/${source}.ts`, ...options, `--outfile=build/${name}.mjs`]);
  }
}

export function build() {
  models();
  const sources = ['src', 'static', 'package-lock.json', 'svelte.config.js', 'vite.config.ts', 'tsconfig.json'];
  unless('build', sources, existsSync(join(root, 'build/start.mjs')), () => {
    run('Building', 'npx', ['vite', 'build', '--logLevel', 'error']);
    bundleServer();
  });
}

export const chromiumPath = process.env.CHROMIUM_PATH ?? '/usr/bin/chromium';

const asRoot = process.getuid?.() === 0 ? [] : ['sudo'];
const quietly = { DEBIAN_FRONTEND: 'noninteractive' };

function apt(title, ...args) {
  const [command, ...rest] = [...asRoot, 'apt-get', ...args];
  run(title, command, rest, quietly);
}

/** Debian's package of the open lens database: one test reads all of it, and is left out where it cannot be had. */
export function lensDatabase() {
  const folder = '/usr/share/lensfun/version_1';
  if (existsSync(folder)) return;
  const [command, ...rest] = [...asRoot, 'sh', '-c'];
  const install = 'apt-get update -qq; apt-get install -y -qq --no-install-recommends liblensfun-data-v1';
  spawnSync(command, [...rest, install], { stdio: 'ignore', env: { ...process.env, ...quietly } });
  if (!existsSync(folder))
    console.log('\n— The lens database could not be installed: the test that reads all of it is left out.');
}

/** A Redis-compatible server, for the tests of several servers on one store; they are left out where it cannot be had. */
export function sharedStore() {
  if (spawnSync('redis-server', ['--version'], { stdio: 'ignore' }).status === 0) return;
  const [command, ...rest] = [...asRoot, 'sh', '-c'];
  const install = 'apt-get update -qq; apt-get install -y -qq --no-install-recommends redis-server';
  spawnSync(command, [...rest, install], { stdio: 'ignore', env: { ...process.env, ...quietly } });
  if (spawnSync('redis-server', ['--version'], { stdio: 'ignore' }).status !== 0)
    console.log('\n— No Redis server could be installed: the tests of a shared store are left out.');
}

/** Poppler, with which tests read the pages that were made. */
export function poppler() {
  if (spawnSync('pdftotext', ['-v'], { stdio: 'ignore' }).status === 0) return;
  apt('Updating the package lists', 'update', '-qq');
  apt('Installing Poppler', 'install', '-y', '-qq', '--no-install-recommends', 'poppler-utils');
}

/** Debian's Chromium without a window, quicker for tests; they go without where it cannot be had. */
export function chromiumShell() {
  if (existsSync('/usr/bin/chromium-headless-shell')) return;
  const [command, ...rest] = [...asRoot, 'sh', '-c'];
  const install = 'apt-get update -qq; apt-get install -y -qq --no-install-recommends chromium-headless-shell';
  spawnSync(command, [...rest, install], { stdio: 'ignore', env: { ...process.env, ...quietly } });
}

/** Debian's Chromium, through apt when it is missing. */
export function chromium() {
  if (existsSync(chromiumPath)) return;
  apt('Updating the package lists', 'update', '-qq');
  apt('Installing Chromium', 'install', '-y', '-qq', '--no-install-recommends', 'chromium');
  execFileSync(chromiumPath, ['--version'], { stdio: 'inherit' });
}
