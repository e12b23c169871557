/** The way to the worker that searches. One worker serves the page, started when first needed. */
import { proxy, wrap, type Remote } from 'comlink';
import type { Alternatives } from '$core/call/alternatives';
import type { LensInLine } from '$core/call/lineUp';
import type { OnProgress } from '$core/call/remedies/findRemedies';
import type { Combination, Remedy, RemedyPart } from '$core/call/remedies/remedy';
import type { DistanceSensitivity } from '$core/call/sensitivity';
import type { StopStep } from '$core/optics/stops';
import type { Kit, Setup } from '$core/setup/schema';
import type { Planner } from '../../workers/planner.worker';
import { Latest } from './latest';

/** What every search starts from. */
export interface Question {
  readonly setup: Setup;
  readonly kit: Kit;
  readonly stopStep: StopStep;
}

export interface Fixes {
  /** One change each, least effort first. */
  readonly remedies: readonly Remedy[];
  /** Two changes together; looked for when single ones are few. */
  readonly combinations: readonly Combination[];
}

let planner: Remote<Planner> | undefined;

function worker(): Remote<Planner> {
  planner ??= wrap<Planner>(
    new Worker(new URL('../../workers/planner.worker.ts', import.meta.url), { type: 'module' })
  );
  return planner;
}

interface Asked {
  readonly question: Question;
  readonly onProgress: OnProgress;
}

const fixes = new Latest<Asked, Fixes>(({ question, onProgress }) => worker().findFixes(question, proxy(onProgress)));
const lines = new Latest<Asked, LensInLine[]>(({ question, onProgress }) =>
  worker().lineUp(question, proxy(onProgress))
);
const others = new Latest<Question, Alternatives>((question) => worker().alternatives(question));
const sensitivities = new Latest<Question, DistanceSensitivity | null>((question) =>
  worker().distanceSensitivity(question)
);

/** Each answers with undefined when another setup has been asked about since. */
export const findFixes = (question: Question, onProgress: OnProgress) => fixes.run({ question, onProgress });
export const findLineUp = (question: Question, onProgress: OnProgress) => lines.run({ question, onProgress });
export const findAlternatives = (question: Question) => others.run(question);
export const findSensitivity = (question: Question) => sensitivities.run(question);

/** Several remedies done together, or undefined when they do not open the window. */
export function combine(question: Question, parts: readonly RemedyPart[]): Promise<Combination | undefined> {
  return worker().combineRemedies(question, [...parts]);
}
