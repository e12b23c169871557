/**
 * Answers as they were when last read through: the demo's setups, and setups of every sort. They say not what is right (the
 * other tests do) but what has changed: an intended change is read in the difference and written anew by `npx vitest -u`.
 */
import { describe, expect, it } from 'vitest';
import { demoJobs } from '../job/demo';
import { defaultHabits } from '../habits/habits';
import { builtInKit } from '../kit/builtInKit';
import { setupSchema } from '../setup/schema';
import { variedSetups, type Varied } from '../testing/variedSetups';
import { callSentence, conflictSentences, reasonSentence } from '../words/call';
import { remedyWords, combinationWords } from '../words/remedies';
import { alternatives } from './alternatives';
import { lineUp } from './lineUp';
import type { PlanInput } from './planInput';
import { planSetup } from './planSetup';
import { findCombinations } from './remedies/combine';
import { findRemedies } from './remedies/findRemedies';
import type { Outcome } from './remedies/remedy';
import { distanceSensitivity } from './sensitivity';
import { whatIfSteadier } from './whatIf';

/** Both tests read the same answers: each is found once. */
function once<T>(find: (input: PlanInput) => T): (input: PlanInput) => T {
  const known = new Map<PlanInput, T>();
  return (input) => {
    const found = known.get(input) ?? find(input);
    known.set(input, found);
    return found;
  };
}
const plannedOnce = once(planSetup);
const alternativesOnce = once(alternatives);
const remediesOnce = once((input) => findRemedies(input));
const lineUpOnce = once((input) => lineUp(input));
const combinationsOnce = once((input) => findCombinations(input));

const shown = (value: number): string => String(Number(value.toPrecision(5)));

/** Every figure and word of a value, a line each, under its name. */
function figures(value: unknown, name = ''): string[] {
  if (typeof value === 'number') return [`${name} ${shown(value)}`];
  if (typeof value !== 'object' || value === null) return [`${name} ${String(value)}`];
  return Object.entries(value).flatMap(([key, part]) => figures(part, name ? `${name}.${key}` : key));
}

const percent = (odds: number): string => `${(odds * 100).toFixed(1)}%`;

const reached = ({ opens, partial, effort }: Outcome): string =>
  `effort ${shown(effort)}: ${opens ? `f/${opens.first} to f/${opens.last}, ${percent(opens.odds)} at f/${opens.stop}` : `in part, ${figures(partial).join(', ')}`}`;

/** What a photographer reads: the call, why, what works, whose eye, how often; what else there is. */
function readPlan(input: PlanInput): string[] {
  const plan = plannedOnce(input);
  if (plan.kind === 'noPlan') return [`none: ${figures(plan.reason).join(', ')}`];
  const { window, stops, selected } = plan;
  const labelAt = (index: number) => `f/${stops[index]?.stop.label ?? ''}`;
  const entry = stops[selected];
  return [
    callSentence(plan, 'metric'),
    `  ${reasonSentence(plan)}`,
    ...Object.values(conflictSentences(plan) ?? {}).map((sentence) => `  ${sentence}`),
    `  works: ${window ? `${labelAt(window.first)} to ${labelAt(window.last)}` : 'no stop'}`,
    ...(entry
      ? [
          `  target: ${entry.target.subjectId} ${entry.target.role}, ${shown(entry.target.focusDistanceMm)} mm; ${percent(entry.odds)}`
        ]
      : [])
  ];
}

const readRemedies = (input: PlanInput): string[] =>
  remediesOnce(input).map((remedy) => {
    const { what, effect } = remedyWords(remedy, 'metric');
    return `  fix: ${what}: ${effect} (${reached(remedy)})`;
  });

function readOthers(input: PlanInput): string[] {
  const { targets, styles } = alternativesOnce(input);
  const plan = plannedOnce(input);
  const labelOf = (fNumber: number) =>
    plan.kind === 'plan' ? (plan.stops.find(({ stop }) => stop.fNumber === fNumber)?.stop.label ?? shown(fNumber)) : '';
  return [
    ...targets.map(
      ({ target, odds, holdsFrom }) =>
        `  or on: ${target.subjectId} ${target.feature}, ${percent(odds)}, from ${holdsFrom === null ? 'no stop' : `f/${labelOf(Number(holdsFrom))}`}`
    ),
    ...styles.map(
      ({ style, stop, odds }) =>
        `  ${style}: f/${typeof stop === 'number' ? shown(stop) : String(stop)}, ${percent(odds)}`
    )
  ];
}

const readLenses = (input: PlanInput): string[] =>
  lineUpOnce(input).map(
    ({ lensName, focalLengthMm, distanceMm, result, reason }) =>
      `  ${lensName} at ${shown(focalLengthMm)} mm from ${shown(distanceMm)} mm: ${result ? `f/${result.stop}, ${percent(result.odds)}` : figures(reason).join(', ')}`
  );

const readPairs = (input: PlanInput): string[] =>
  combinationsOnce(input).map((pair) => `  ${combinationWords(pair, 'metric').what} (${reached(pair)})`);

/** All that a plan says, of its stops that in use. */
function planFigures(input: PlanInput): string[] {
  const plan = plannedOnce(input);
  if (plan.kind === 'noPlan') return figures(plan.reason);
  const { subjects, stops, ...rest } = plan;
  return [
    ...figures(rest),
    ...subjects.flatMap(({ id, importance, nearest, furthest }) => figures({ importance, nearest, furthest }, id)),
    ...stops.map(({ stop, odds, target }) => `f/${stop.label} ${shown(odds)} ${target.subjectId} ${target.role}`),
    ...figures(stops[plan.selected], 'inUse')
  ];
}

function otherFigures(input: PlanInput): string[] {
  const { targets, styles } = alternativesOnce(input);
  const ofTargets = targets.map(({ target, ...rest }) => ({
    ...rest,
    on: target.subjectId,
    at: target.focusDistanceMm
  }));
  return [
    ...figures(ofTargets, 'target'),
    ...figures(styles, 'style'),
    ...figures(distanceSensitivity(input), 'distance'),
    ...figures(whatIfSteadier(input), 'steadier')
  ];
}

const remedyFigures = (input: PlanInput): string[] =>
  remediesOnce(input).flatMap(({ setup, kind, effort, opens, framing, partial }) => {
    const { placement, lateralMm, heightMm, yawDeg, pitchDeg } = setup.camera;
    const people = setup.people.map(({ depthMm, lateralMm: x, headYawDeg }) => ({ depthMm, x, headYawDeg }));
    const behind = setup.backgrounds.map(({ depthMm }) => depthMm);
    const camera = { placement, lateralMm, heightMm, yawDeg, pitchDeg };
    return figures({ effort, opens, framing, partial, camera, people, behind }, kind);
  });

const lensFigures = (input: PlanInput): string[] =>
  figures(lineUpOnce(input).map(({ setup, ...entry }) => ({ ...entry, placement: setup.camera.placement })));

const pairFigures = (input: PlanInput): string[] =>
  figures(
    combinationsOnce(input).map(({ effort, opens, framing, partial, parts }) => ({
      effort,
      opens,
      framing,
      partial,
      parts
    }))
  );

const asked = ({ setup, kit, habits }: Varied): PlanInput => ({ setup, kit, habits, stopStep: 'half' });
const varied = variedSetups(36).map(asked);
const calm = variedSetups(40, true).map(asked);
/** Where two changes together may do. */
const paired = [3, 11, 13, 33].flatMap((at) => calm.slice(at - 1, at));
const demo = demoJobs()
  .flatMap(({ setups }) => setups)
  .map((setup): PlanInput => ({ setup, kit: builtInKit, habits: defaultHabits, stopStep: 'third' }));

const titled = (inputs: readonly PlanInput[], say: (input: PlanInput) => readonly string[]): string =>
  inputs
    .map((input) => ({ name: input.setup.name, said: say(input) }))
    .filter(({ said }) => said.length > 0)
    .map(({ name, said }) => [`# ${name}`, ...said, ''].join('\n'))
    .join('\n');

describe('answers that stand', () => {
  it('setups of every sort are such as can be stored', () => {
    for (const { setup } of [...varied, ...calm])
      expect(setupSchema.safeParse(setup).error?.issues ?? [], setup.name).toEqual([]);
  });

  const everyPlan = [...demo, ...varied, ...calm.slice(0, 24)];
  const some = [...demo, ...calm.slice(0, 12)];

  it('as they are read: call, window, target, rate, fixes, alternatives, lenses', async () => {
    const text = [
      titled(everyPlan, readPlan),
      titled(some, readOthers),
      titled([...demo, ...calm], readRemedies),
      titled(paired, readPairs),
      titled(varied.slice(0, 6), readLenses)
    ].join('\n');
    await expect(text).toMatchFileSnapshot('answers/answers.txt');
  });

  it('figure by figure', async () => {
    const text = [
      titled(everyPlan, planFigures),
      titled(some, otherFigures),
      titled([...demo, ...calm], remedyFigures),
      titled(paired, pairFigures),
      titled(varied.slice(0, 6), lensFigures)
    ].join('\n');
    await expect(text).toMatchFileSnapshot('answers/figures.txt');
  });
});
