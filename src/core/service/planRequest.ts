/** The plan as a service: a request in JSON in, the answer in JSON out. Server, command line and tests share it. */
import { z } from 'zod';
import { alternatives } from '../call/alternatives';
import { lineUp, usefulFocalLengths } from '../call/lineUp';
import type { PlanInput } from '../call/planInput';
import { planSetup, stopsOf } from '../call/planSetup';
import { findRemedies } from '../call/remedies/findRemedies';
import { distanceSensitivity } from '../call/sensitivity';
import { issueField, issueReason } from '../formats/issues';
import { forbiddenPath, shapeProblem } from '../formats/untrusted';
import { currentVersion, renewSetup } from '../formats/versions';
import { defaultHabits, habitsSchema } from '../habits/habits';
import { mergedKit } from '../kit/builtInKit';
import { focalLengthProblem, goTogether, lensOf } from '../kit/find';
import { kitSchema } from '../kit/schema';
import { setupSchema } from '../setup/schema';
import { maxLineUpWork, maxRequestBytes } from './limits';
import { callSentence, conflictSentences, noPlanWords, printWords, reasonSentence } from '../words/call';

const version = z
  .int()
  .min(1, 'must be at least 1')
  .max(currentVersion, `must be at most ${currentVersion}`)
  .default(currentVersion)
  .describe('Version of the setup sent; an earlier one is brought up to date');

const planRequestSchema = z.strictObject({
  version,
  setup: setupSchema,
  kit: kitSchema.optional().describe('Bodies and lenses beside the built-in ones; one with a built-in id replaces it'),
  habits: habitsSchema.default(defaultHabits).describe('Spreads, sways and paces; the defaults are our estimates'),
  stopStep: z.enum(['full', 'half', 'third']).default('third'),
  include: z
    .array(z.enum(['alternatives', 'remedies', 'lineUp', 'sensitivity']))
    .max(4, 'must be at most 4')
    .default([])
    .describe('What to compute beside the plan')
});

export type PlanAnswer =
  | { readonly ok: true; readonly json: string }
  | { readonly ok: false; readonly field: string; readonly reason: string };

/** The published JSON Schema of a request. */
export function planRequestJsonSchema(): unknown {
  return z.toJSONSchema(planRequestSchema, { io: 'input' });
}

type Refusal = Extract<PlanAnswer, { readonly ok: false }>;

const refuse = (field: string, reason: string): Refusal => ({ ok: false, field, reason });
const refuseFor = (issue: z.core.$ZodIssue | undefined, within = ''): Refusal =>
  refuse([within, issueField(issue)].filter((part) => part !== '').join('.'), issueReason(issue));

/** The request with its setup brought up to date, not yet validated; or why it cannot be. */
function renewed(data: object): { readonly ok: true; readonly data: object } | Refusal {
  if (!('version' in data) || !('setup' in data)) return { ok: true, data };
  const asked = version.safeParse(data.version);
  if (!asked.success) return refuseFor(asked.error.issues[0], 'version');
  const setup = renewSetup(data.setup, asked.data);
  if (!setup.ok) return refuseFor(setup.issue, 'setup');
  return { ok: true, data: { ...data, setup: setup.data } };
}

/** Everything a line-up would have to judge: pictures × stops × subjects. */
function lineUpWork({ setup, kit, stopStep }: PlanInput): number {
  const pictures = kit.lenses.map((lens) => usefulFocalLengths(lens).length * stopsOf(lens, stopStep).length);
  return pictures.reduce((sum, count) => sum + count, 0) * (setup.people.length + setup.things.length);
}

type Include = z.infer<typeof planRequestSchema>['include'];

/** The text as an object that says nothing it may not; or why it is none. */
function objectIn(text: string): { readonly ok: true; readonly data: object } | Refusal {
  if (text.length > maxRequestBytes) return refuse('', `The request is larger than ${maxRequestBytes / 1024} KB.`);
  const shape = shapeProblem(text);
  if (shape !== null) return refuse('', shape);
  let data: unknown;
  try {
    data = JSON.parse(text);
  } catch {
    return refuse('', 'The request is not complete JSON.');
  }
  if (typeof data !== 'object' || data === null || Array.isArray(data)) {
    return refuse('', 'The request must be a JSON object.');
  }
  const forbidden = forbiddenPath(data);
  return forbidden === null ? { ok: true, data } : refuse(forbidden, 'This key has no place in a request.');
}

/** What is to be planned, and what is asked besides; or what is wrong with it. */
function readRequest(
  text: string
): { readonly ok: true; readonly input: PlanInput; readonly include: Include } | Refusal {
  const object = objectIn(text);
  if (!object.ok) return object;
  const current = renewed(object.data);
  if (!current.ok) return current;
  const parsed = planRequestSchema.safeParse(current.data);
  if (!parsed.success) return refuseFor(parsed.error.issues[0]);
  const { setup, stopStep, habits, include } = parsed.data;
  const kit = mergedKit(parsed.data.kit ?? {});
  const lens = lensOf(kit, setup.camera);
  const problem = lens ? focalLengthProblem(lens, setup.camera.focalLengthMm) : null;
  if (problem !== null) return refuse('setup.camera.focalLengthMm', problem);
  if (!goTogether(kit, setup.camera))
    return refuse('setup.camera.lensId', 'The lens does not go on the body, with what is between.');
  const input: PlanInput = { setup, kit, stopStep, habits };
  if (include.includes('lineUp') && lineUpWork(input) > maxLineUpWork) {
    return refuse(
      'include',
      'A line-up of so many lenses, stops and people is too much for one request. Ask for fewer.'
    );
  }
  return { ok: true, input, include };
}

/** Answers the text of a request. The same text gives the same bytes. */
export function answerPlanRequest(text: string): PlanAnswer {
  const request = readRequest(text);
  if (!request.ok) return request;
  const { input, include } = request;
  const plan = planSetup(input);
  const words =
    plan.kind === 'plan'
      ? {
          call: callSentence(plan, 'metric'),
          reason: [reasonSentence(plan), printWords(plan)].filter((text) => text !== '').join(' '),
          conflict: conflictSentences(plan)
        }
      : noPlanWords(plan.reason, 'metric');
  const answer = {
    words,
    plan,
    alternatives: include.includes('alternatives') ? alternatives(input) : undefined,
    remedies: include.includes('remedies') ? findRemedies(input) : undefined,
    lineUp: include.includes('lineUp') ? lineUp(input) : undefined,
    sensitivity: include.includes('sensitivity') ? distanceSensitivity(input) : undefined
  };
  return { ok: true, json: `${JSON.stringify(answer)}\n` };
}
