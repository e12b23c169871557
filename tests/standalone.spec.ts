/** The built server with the packages of `dependencies` alone, in an empty folder: an install without those of development. */
import { execFileSync, spawn } from 'node:child_process';
import { cpSync, mkdirSync, mkdtempSync, rmSync, symlinkSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { dirname, join, relative, resolve } from 'node:path';
import { expect, test } from '@playwright/test';
import { demoJobs } from '../src/core/job/demo';
import { stopped } from './ownServer';

test('what was built starts without the packages of development, and answers a plan', async ({ request }) => {
  const root = resolve('.');
  const folder = mkdtempSync(join(tmpdir(), 'focalis-'));
  try {
    cpSync(join(root, 'build'), join(folder, 'build'), { recursive: true });
    cpSync(join(root, 'package.json'), join(folder, 'package.json'));
    // What `npm install --omit=dev` would put there, from what is installed already: no network.
    const listed = execFileSync('npm', ['ls', '--omit=dev', '--all', '--parseable'], { encoding: 'utf8' });
    const packages = listed.split('\n').filter((path) => path.startsWith(join(root, 'node_modules')));
    expect(packages.length).toBeLessThan(80);
    for (const path of packages.filter((one) => relative(root, one).split('node_modules').length === 2)) {
      const place = join(folder, relative(root, path));
      mkdirSync(dirname(place), { recursive: true });
      symlinkSync(path, place);
    }
    // Links are followed to where they stand here, not to what is really there: nothing else of the project is found.
    const child = spawn(
      'node',
      ['--preserve-symlinks', '--preserve-symlinks-main', 'build/start.mjs', '--port', '4243'],
      {
        cwd: folder,
        env: { PATH: process.env['PATH'] ?? '', NODE_OPTIONS: '--preserve-symlinks' }
      }
    );
    try {
      let said = '';
      await new Promise<void>((ready, failed) => {
        const look = (text: Buffer) => {
          said += String(text);
          if (said.includes('Focalis is at')) ready();
        };
        child.stdout.on('data', look);
        child.stderr.on('data', look);
        child.once('exit', () => failed(new Error(said)));
      });
      const page = await request.get('http://127.0.0.1:4243/setup/demo-west-door');
      expect(page.status()).toBe(200);
      const answer = await request.post('http://127.0.0.1:4243/api/plan', {
        data: { setup: demoJobs()[0].setups[0], stopStep: 'third' }
      });
      expect(answer.status()).toBe(200);
      expect(await answer.json()).toMatchObject({ plan: { kind: 'plan' } });
    } finally {
      await stopped(child);
    }
  } finally {
    rmSync(folder, { recursive: true, force: true });
  }
});
