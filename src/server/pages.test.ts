import { readdirSync } from 'node:fs';
import { join, relative } from 'node:path';
import { expect, it } from 'vitest';
import { isPage } from './pages';

const routes = join(import.meta.dirname, '../routes');

it('knows the address of every page, so that each is served and reloads without a network', () => {
  const pages = readdirSync(routes, { recursive: true, encoding: 'utf8' })
    .filter((file) => file.endsWith('+page.svelte'))
    .map(
      (file) => `/${relative('.', join(file, '..')).replaceAll(/\[\w+\]/g, 'some-id')}`.replace(/\/\.?$/, '') || '/'
    );
  expect(pages.length).toBeGreaterThan(10);
  expect(pages).toContain('/drills/some-id/hand');
  for (const page of pages) expect(isPage(page), page).toBe(true);
});

it('leaves files, answers and what lies deeper to others', () => {
  for (const path of [
    '/api/plan',
    '/favicon.svg',
    '/models/head-0.mesh',
    '/setup/a/b',
    '/drills/a/b',
    '/drills/a/hand/b'
  ])
    expect(isPage(path), path).toBe(false);
});
