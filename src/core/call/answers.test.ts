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
import type { StopPlan } from './plan';
import type { PlanInput } from './planInput';
import { planSetup } from './planSetup';
import { findCombinations } from './remedies/combine';
import { findRemedies } from './remedies/findRemedies';
import type { Outcome } from './remedies/remedy';
import { distanceSensitivity } from './sensitivity';
import { whatIfSteadier } from './whatIf';

/** On one line, numbers to five digits. */
const line = (value: unknown): string =>
  JSON.stringify(value, (_, part: unknown) =>
    typeof part === 'number' ? Number(part.toPrecision(5)) : part
  ).replaceAll('"', '');

const ofStop = ({ sharpness, stop, ...rest }: StopPlan): string =>
  line({ stop: stop.label, ...rest, sharpness: sharpness.map((points) => points.map(({ ratio }) => ratio)) });

function ofPlan(input: PlanInput): string[] {
  const plan = planSetup(input);
  if (plan.kind === 'noPlan') return [line(plan.reason)];
  const { subjects, stops, ...rest } = plan;
  const shown = [...new Set([0, plan.selected])];
  return [
    callSentence(plan, 'metric'),
    reasonSentence(plan),
    line(conflictSentences(plan)),
    line(rest),
    line(subjects.map(({ id, importance, nearest, furthest }) => ({ id, importance, nearest, furthest }))),
    `odds ${line(stops.map(({ odds }) => odds))} on ${line(stops.map(({ target }) => `${target.subjectId} ${target.role}`))}`,
    ...shown.flatMap((index) => (stops[index] ? [ofStop(stops[index])] : []))
  ];
}

const ofOutcome = ({ effort, opens, framing, partial }: Outcome): string => line({ effort, opens, framing, partial });

function ofRemedies(input: PlanInput): string[] {
  return findRemedies(input).map((remedy) => {
    const { what, effect } = remedyWords(remedy, 'metric');
    const { camera, people, backgrounds } = remedy.setup;
    const where = people.map(({ depthMm, lateralMm, headYawDeg }) => [depthMm, lateralMm, headYawDeg]);
    const behind = backgrounds.map(({ depthMm }) => depthMm);
    const { placement, lateralMm, heightMm, yawDeg, pitchDeg } = camera;
    return `${what}: ${effect} ${ofOutcome(remedy)} ${line({ placement, lateralMm, heightMm, yawDeg, pitchDeg, where, behind })}`;
  });
}

function ofOthers(input: PlanInput): string[] {
  const { targets, styles } = alternatives(input);
  return [
    ...targets.map(
      ({ target, ...rest }) =>
        `or ${target.subjectId} ${target.feature} ${line({ ...rest, at: target.focusDistanceMm })}`
    ),
    line(styles),
    line(distanceSensitivity(input)),
    line(whatIfSteadier(input))
  ];
}

const ofLenses = (input: PlanInput): string[] =>
  lineUp(input).map(({ setup, ...entry }) => `${line(entry)} ${line(setup.camera.placement)}`);

const ofPairs = (input: PlanInput): string[] =>
  findCombinations(input).map(
    (pair) => `${combinationWords(pair, 'metric').what} ${ofOutcome(pair)} ${line(pair.parts)}`
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
  inputs.map((input) => [`# ${input.setup.name}`, ...say(input), ''].join('\n')).join('\n');

describe('answers that stand', () => {
  it('setups of every sort are such as can be stored', () => {
    for (const { setup } of [...varied, ...calm])
      expect(setupSchema.safeParse(setup).error?.issues ?? [], setup.name).toEqual([]);
  });

  it('of the demo', async () => {
    await expect(titled(demo, ofPlan)).toMatchFileSnapshot('answers/demo.txt');
  });

  it('of setups of every sort', async () => {
    await expect(titled([...varied, ...calm.slice(0, 24)], ofPlan)).toMatchFileSnapshot('answers/varied.txt');
  });

  it('what else there is', async () => {
    await expect(titled([...demo, ...calm.slice(0, 12)], ofOthers)).toMatchFileSnapshot('answers/others.txt');
  });

  it('remedies', async () => {
    await expect(titled([...demo, ...calm], ofRemedies)).toMatchFileSnapshot('answers/remedies.txt');
  });

  it('pairs of remedies', async () => {
    await expect(titled(paired, ofPairs)).toMatchFileSnapshot('answers/pairs.txt');
  });

  it('lenses in line', async () => {
    await expect(titled(varied.slice(0, 6), ofLenses)).toMatchFileSnapshot('answers/lenses.txt');
  });
});
