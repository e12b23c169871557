/** The way to the worker that looks for remedies. One worker serves the page, started when first needed. */
import { wrap, type Remote } from 'comlink';
import type { RemedyInput } from '$core/call/remedies/findRemedies';
import type { Remedy } from '$core/call/remedies/remedy';
import type { Planner } from '../../workers/planner.worker';
import { Latest } from './latest';

let planner: Remote<Planner> | undefined;

function worker(): Remote<Planner> {
  planner ??= wrap<Planner>(
    new Worker(new URL('../../workers/planner.worker.ts', import.meta.url), { type: 'module' })
  );
  return planner;
}

const remedies = new Latest<RemedyInput, Remedy[]>((input) => worker().findRemedies(input));

/** Remedies for a setup, or undefined when another setup has been asked about since. */
export function findRemedies(input: RemedyInput): Promise<Remedy[] | undefined> {
  return remedies.run(input);
}
