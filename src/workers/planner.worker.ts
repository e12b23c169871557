/** Remedies and line-up off the main thread. */
import { expose } from 'comlink';
import { lineUp } from '../core/call/lineUp';
import { findRemedies } from '../core/call/remedies/findRemedies';

const planner = { findRemedies, lineUp };
export type Planner = typeof planner;

expose(planner);
