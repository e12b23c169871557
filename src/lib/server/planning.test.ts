import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterEach, beforeEach, expect, it, vi } from 'vitest';

let folder = '';
beforeEach(() => {
  folder = mkdtempSync(join(tmpdir(), 'focalis-plan-'));
  vi.resetModules();
});
afterEach(() => {
  vi.unstubAllEnvs();
  rmSync(folder, { recursive: true });
});

/** The pool with a thread that does this to each request. */
async function planWith(code: string, limitMs: number) {
  const file = join(folder, 'worker.mjs');
  writeFileSync(file, `export default async function answer(text) { ${code} }`);
  vi.stubEnv('PLAN_WORKER', file);
  vi.stubEnv('PLAN_LIMIT_MS', String(limitMs));
  return (await import('./planning')).plan;
}

it('gives the thread’s answer', async () => {
  const plan = await planWith('return { ok: true, json: text.toUpperCase() };', 60_000);
  expect(await plan('a', 'a')).toEqual({ ok: true, json: 'A' });
});

it('ends a request that takes too long, and answers the next', async () => {
  const plan = await planWith(`if (text === 'long') for (;;); return { ok: true, json: text };`, 300);
  expect(await plan('long', 'a')).toMatchObject({
    ok: null,
    reason: expect.stringContaining('longer than 0.3 s') as unknown
  });
  await expect.poll(() => plan('short', 'a'), { timeout: 60_000 }).toEqual({ ok: true, json: 'short' });
});

it('ends a request that takes too much memory, says so, and answers the next', async () => {
  const plan = await planWith(
    `const kept = []; if (text === 'large') for (;;) kept.push(new Array(100000).fill({})); return { ok: true, json: text };`,
    60_000
  );
  expect(await plan('large', 'a')).toMatchObject({
    ok: null,
    reason: expect.stringContaining('more memory') as unknown
  });
  await expect.poll(() => plan('small', 'a'), { timeout: 60_000 }).toEqual({ ok: true, json: 'small' });
});
