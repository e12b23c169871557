// npm start: installs and builds if needed, then serves the application, which brings its demo.
import { join } from 'node:path';
import { pathToFileURL } from 'node:url';
import { parseArgs } from 'node:util';
import { build, install, root } from './prepare.mjs';

const { values } = parseArgs({
  options: { cert: { type: 'string' }, key: { type: 'string' }, host: { type: 'string' }, port: { type: 'string' } }
});
if (Boolean(values.cert) !== Boolean(values.key)) {
  console.error('A certificate needs its key: npm start -- --cert cert.pem --key key.pem');
  process.exit(1);
}

install();
build();

// The largest any address takes; each has its own (src/core/service/limits.ts).
process.env.BODY_SIZE_LIMIT ??= '8M';
process.env.PLAN_WORKER ??= join(root, 'build/plan.worker.mjs');
const port = Number(values.port ?? process.env.PORT ?? 4173);
const load = (name) => import(pathToFileURL(join(root, 'build', name)).href);
const [{ handler }, { serve }] = [await load('handler.js'), await load('serve.mjs')];
try {
  const { addresses } = await serve({
    host: values.host ?? process.env.HOST ?? '127.0.0.1',
    port,
    build: join(root, 'build'),
    handler,
    tls: values.cert ? { cert: values.cert, key: values.key } : null,
    origin: process.env.ORIGIN
  });
  console.log(`\nFocalis is at ${addresses.join(' and ')}`);
} catch (error) {
  const said = {
    EADDRINUSE: `Port ${port} is in use. Try npm start -- --port ${port + 7}`,
    EACCES: `Port ${port} is not open to you. Try npm start -- --port 4173`,
    ENOENT: `${error.path} is not there.`
  };
  console.error(said[error.code] ?? error.message);
  process.exit(1);
}
