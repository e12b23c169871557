// npm start: installs and builds if needed, then serves the application, which brings its demo.
import { join } from 'node:path';
import { pathToFileURL } from 'node:url';
import { build, install, root } from './prepare.mjs';

// A certificate without its key is said before anything is built.
const has = (name) => process.argv.some((one) => one === `--${name}` || one.startsWith(`--${name}=`));
if (has('cert') !== has('key')) {
  console.error('A certificate needs its key: npm start -- --cert cert.pem --key key.pem');
  process.exit(1);
}
// The tests start what they have built.
if (process.env.FOCALIS_BUILT !== '1') {
  install();
  build();
}
await import(pathToFileURL(join(root, 'build/start.mjs')).href);
