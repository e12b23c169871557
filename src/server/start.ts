/**
 * Starts what was built, by itself: `node build/start.mjs [--host …] [--port …] [--cert … --key …]`. It needs the packages of
 * `dependencies` and nothing else of the project; docs/running.md has what it can be told.
 */
import { dirname, join } from 'node:path';
import { fileURLToPath, pathToFileURL } from 'node:url';
import { parseArgs } from 'node:util';
import { serve, type ServeOptions } from './serve';

const build = dirname(fileURLToPath(import.meta.url));

const { values } = parseArgs({
  options: { cert: { type: 'string' }, key: { type: 'string' }, host: { type: 'string' }, port: { type: 'string' } }
});

function fail(reason: string): never {
  process.stderr.write(`${reason}\n`);
  process.exit(1);
}

if (Boolean(values.cert) !== Boolean(values.key))
  fail('A certificate needs its key: npm start -- --cert cert.pem --key key.pem');

// The largest any address takes; each has its own (src/core/service/limits.ts).
process.env['BODY_SIZE_LIMIT'] ??= '8M';
process.env['PLAN_WORKER'] ??= join(build, 'plan.worker.mjs');
const port = Number(values.port ?? process.env['PORT'] ?? 4173);
const { cert, key } = values;

/** What went wrong, as whoever starts it can mend it. */
function reasonOf(error: unknown): string {
  const { code, path, message } = error as NodeJS.ErrnoException;
  if (code === 'EADDRINUSE') return `Port ${port} is in use. Try npm start -- --port ${port + 7}`;
  if (code === 'EACCES') return `Port ${port} is not open to you. Try npm start -- --port 4173`;
  if (code === 'ENOENT') return `${path} is not there.`;
  return message;
}

try {
  const { handler } = (await import(pathToFileURL(join(build, 'handler.js')).href)) as Pick<ServeOptions, 'handler'>;
  const { addresses } = await serve({
    host: values.host ?? process.env['HOST'] ?? '127.0.0.1',
    port,
    build,
    handler,
    tls: cert && key ? { cert, key } : null,
    origin: process.env['ORIGIN']
  });
  process.stdout.write(`\nFocalis is at ${addresses.join(' and ')}\n`);
} catch (error) {
  fail(reasonOf(error));
}
