/** Opens a page with the renderer alone in it, bundled on the spot, with the figures beside it. */
import { readFile } from 'node:fs/promises';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import type { Page } from '@playwright/test';
import { build } from 'esbuild';
import type { Proof } from './harness';

const root = fileURLToPath(new URL('../..', import.meta.url));
const origin = 'http://proof.test';

async function bundled(): Promise<string> {
  const { outputFiles } = await build({
    entryPoints: [join(root, 'tests/proof/harness.ts')],
    bundle: true,
    write: false,
    format: 'iife',
    alias: { $core: join(root, 'src/core') },
    logLevel: 'warning'
  });
  return outputFiles[0]?.text ?? '';
}

export async function openProof(page: Page): Promise<void> {
  const code = await bundled();
  await page.route(`${origin}/**`, async (route) => {
    const { pathname } = new URL(route.request().url());
    if (pathname === '/')
      return route.fulfill({ contentType: 'text/html', body: '<!doctype html><title>Proof</title>' });
    if (!pathname.startsWith('/models/')) return route.fulfill({ status: 404, body: '' });
    return route.fulfill({ body: await readFile(join(root, 'static', pathname)) });
  });
  await page.goto(origin);
  await page.addScriptTag({ content: code });
}

/** Calls one of the harness's functions in the page. */
export function call<K extends keyof Proof>(page: Page, name: K, ...args: Parameters<Proof[K]>) {
  return page.evaluate(
    ([which, given]) => {
      const proof = (window as unknown as { proof: Record<string, (...items: unknown[]) => unknown> }).proof;
      return proof[which]?.(...given);
    },
    [name, args] as const
  ) as Promise<Awaited<ReturnType<Proof[K]>>>;
}
