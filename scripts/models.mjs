// npm run models: the figures of the Finder, when they are out of date. With --server what `npm run dev` needs beside them.
import { bundleServer, install, models } from './prepare.mjs';

install();
models();
if (process.argv.includes('--server')) bundleServer();
