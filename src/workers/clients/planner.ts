/** The way to the worker that searches: each function asks one question. One worker serves the page. */
import { proxy } from 'comlink';
import type { Alternatives } from '$core/call/alternatives';
import type { LensInLine, LineUpInput } from '$core/call/lineUp';
import type { PlanInput } from '$core/call/planInput';
import type { OnProgress } from '$core/call/remedies/findRemedies';
import type { Combination, Remedy, RemedyPart } from '$core/call/remedies/remedy';
import type { BagAnswer, BagQuestion } from '$core/day/findBag';
import type { PhotoAnswer, PhotoAsked } from '$core/fromPhoto/answer';
import type { GuessAsked, GuessScene } from '$core/drills/desk/guess';
import type { BestChoice, ModeAsked, ModeShot } from '$core/drills/desk/mode';
import type { DistanceSensitivity } from '$core/call/sensitivity';
import type { WhatIf } from '$core/call/whatIf';
import type { KitGroup, PersonFigures, RecordAsked, StanceSway } from '$core/record/groups';
import type { Recorded } from '$core/record/schema';
import type { Technique } from '$core/technique/technique';
import type { FocusMethodOption } from '$core/technique/ways';
import { WorkerClient } from '../client';
import type { Planner } from '../planner.worker';

export interface Fixes {
  /** One change each, least effort first. */
  readonly remedies: readonly Remedy[];
  /** Two changes together; looked for when single ones are few. */
  readonly combinations: readonly Combination[];
}

const planner = new WorkerClient<Planner>(
  () => new Worker(new URL('../planner.worker.ts', import.meta.url), { type: 'module' })
);

export const findFixes = (question: PlanInput, onProgress: OnProgress): Promise<Fixes> =>
  planner.call((api, progress) => api.findFixes(question, proxy(progress)), { onProgress });

export const requestBag = (question: BagQuestion, onProgress: OnProgress): Promise<BagAnswer> =>
  planner.call((api, progress) => api.findBag(question, proxy(progress)), { onProgress });

export const findLineUp = (question: LineUpInput, onProgress: OnProgress): Promise<LensInLine[]> =>
  planner.call((api, progress) => api.lineUp(question, proxy(progress)), { onProgress });

export const findAlternatives = (question: PlanInput): Promise<Alternatives> =>
  planner.call((api) => api.alternatives(question));

export const findSensitivity = (question: PlanInput): Promise<DistanceSensitivity | null> =>
  planner.call((api) => api.distanceSensitivity(question));

export const findWhatIfs = (question: PlanInput): Promise<WhatIf[]> =>
  planner.call((api) => api.whatIfSteadier(question));

export const findSurerAim = (question: PlanInput): Promise<FocusMethodOption | null> =>
  planner.call((api) => api.surerAim(question));

export interface Lessons {
  readonly groups: readonly KitGroup[];
  readonly sways: readonly StanceSway[];
  readonly persons: readonly PersonFigures[];
}

export const learnFrom = (frames: readonly Recorded[], asked: RecordAsked): Promise<Lessons> =>
  planner.call((api) => api.learnFrom(frames, asked));

export const findTechnique = (question: PlanInput): Promise<Technique | null> =>
  planner.call((api) => api.techniqueOf(question));

/** Several remedies done together, or undefined when they do not open the window. */
export const combine = (question: PlanInput, parts: readonly RemedyPart[]): Promise<Combination | undefined> =>
  planner.call((api) => api.combineRemedies(question, [...parts]));

/** A picture to guess at; null where this kit makes none. */
export const drawGuess = (question: GuessAsked): Promise<GuessScene | null> =>
  planner.call((api) => api.guessScene(question));

/** A scene taken as one picks, beside the best way there was; null where nothing can be planned. */
export const requestModeShot = (
  question: ModeAsked
): Promise<{ readonly shot: ModeShot; readonly best: BestChoice } | null> =>
  planner.call((api) => api.tryScene(question));

/** Who stands where in a photo, and the call for them; null where no face tells its distance. */
export const readFromPhoto = (question: PhotoAsked): Promise<PhotoAnswer | null> =>
  planner.call((api) => api.answerPhoto(question));
