// npm run models: the figures of the Finder, when they are out of date.
import { install, models } from './prepare.mjs';

install();
models();
