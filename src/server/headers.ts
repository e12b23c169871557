/** The headers every response carries, whoever writes it: pages, files, workers, fonts, answers and errors. */
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { isPage } from './pages';

export const securityHeaders: Readonly<Record<string, string>> = {
  'x-content-type-options': 'nosniff',
  'x-frame-options': 'DENY',
  'referrer-policy': 'no-referrer',
  'permissions-policy': 'camera=(), microphone=(), geolocation=(), payment=(), usb=()',
  'cross-origin-opener-policy': 'same-origin',
  'cross-origin-resource-policy': 'same-origin'
};

/** For what is no page: nothing may run, load or be framed. */
const nothing = "default-src 'none'; frame-ancestors 'none'; base-uri 'none'; form-action 'none'";

/** For the scripts that run as workers, which have a policy of their own. */
const workers = "default-src 'none'; script-src 'self'; connect-src 'self'; img-src 'self' blob: data:";

/** For those that read pictures: they compile the detector's and the decoder's arithmetic, and can reach nothing. */
const pictures = "default-src 'none'; script-src 'self' 'wasm-unsafe-eval'; connect-src 'none'";

/** For the one that keeps Focalis in the browser: it fetches, and does nothing else. */
const serviceWorker = "default-src 'none'; script-src 'self'; connect-src 'self'";

/** The policy of the page built beforehand, which stands in its head without what only a header may say. */
export function shellPolicy(buildFolder: string): string {
  const html = readFileSync(join(buildFolder, 'prerendered/index.html'), 'utf8');
  const [, policy] = /http-equiv="content-security-policy" content="([^"]*)"/i.exec(html) ?? [];
  if (policy === undefined) throw new Error('The built page has no content security policy.');
  return `${policy.replaceAll('&#39;', "'")}; frame-ancestors 'none'`;
}

/** The content security policy of a response by its path. */
export function policyFor(path: string, shell: string): string {
  if (isPage(path)) return shell;
  if (path === '/service-worker.js') return serviceWorker;
  if (/^\/_app\/immutable\/workers\/(pictures|heic)\.worker-/.test(path)) return pictures;
  return path.startsWith('/_app/immutable/workers/') ? workers : nothing;
}
