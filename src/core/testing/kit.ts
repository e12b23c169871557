/** Bodies and lenses that are put together at will, for tests: not those built into each other. */
import { builtInKit } from '../kit/builtInKit';
import { builtInMount } from '../kit/fits';

export const looseBodies = builtInKit.bodies.filter(({ mount }) => mount !== builtInMount);
export const looseLenses = builtInKit.lenses.filter(({ mount }) => mount !== builtInMount);
