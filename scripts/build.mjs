// Builds the application where the sources have changed since it was last built.
import { build } from './prepare.mjs';

build();
