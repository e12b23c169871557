// npm start: installs and builds if needed, then serves the application, which brings its demo.
import { pathToFileURL } from 'node:url';
import { join } from 'node:path';
import { build, install, root } from './prepare.mjs';

install();
build();

process.env.PORT ??= '4173';
process.env.HOST ??= '127.0.0.1';
process.env.BODY_SIZE_LIMIT ??= '512K';
const { server } = await import(pathToFileURL(join(root, 'build/index.js')).href);
server.server.on('error', (error) => {
  console.error(
    error.code === 'EADDRINUSE' ? `Port ${process.env.PORT} is in use. Try PORT=4180 npm start.` : error.message
  );
  process.exit(1);
});
server.server.on('listening', () => {
  console.log(
    `\nFocalis is at http://${process.env.HOST === '0.0.0.0' ? 'localhost' : process.env.HOST}:${process.env.PORT}`
  );
});
