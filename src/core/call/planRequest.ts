/** The plan as a service: a request in JSON in, the answer in JSON out. Server, command line and tests share it. */
import { z } from 'zod';
import { mergedKit } from '../setup/builtInKit';
import { kitSchema, setupSchema } from '../setup/schema';
import { alternatives } from './alternatives';
import { lineUp } from './lineUp';
import { planSetup } from './planSetup';
import { findRemedies } from './remedies/findRemedies';
import { distanceSensitivity } from './sensitivity';
import { migrateSetup, setupVersion } from '../formats/migrations';
import { issueField, issueReason } from '../formats/issues';
import { callSentence, conflictSentences, noPlanWords, reasonSentence } from '../words/call';

/** Largest request, bytes. */
export const maxPlanRequestBytes = 512 * 1024;

export const planRequestSchema = z.strictObject({
  version: z
    .int()
    .min(1, 'must be at least 1')
    .max(setupVersion, `must be at most ${setupVersion}`)
    .default(setupVersion)
    .describe('Version of the setup sent; an earlier one is brought up to date'),
  setup: setupSchema,
  kit: kitSchema.optional().describe('Bodies and lenses beside the built-in ones; one with a built-in id replaces it'),
  stopStep: z.enum(['full', 'half', 'third']).default('half'),
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

function renewed(data: unknown): unknown {
  if (typeof data !== 'object' || data === null || !('setup' in data) || !('version' in data)) return data;
  const { setup, version } = data;
  return version === 1 ? { ...data, setup: migrateSetup(setup, version) } : data;
}

/** Answers the text of a request. The same text gives the same bytes. */
export function answerPlanRequest(text: string): PlanAnswer {
  if (text.length > maxPlanRequestBytes) {
    return { ok: false, field: '', reason: `The request is larger than ${maxPlanRequestBytes / 1024} KB.` };
  }
  let data: unknown;
  try {
    data = JSON.parse(text);
  } catch {
    return { ok: false, field: '', reason: 'The request is not complete JSON.' };
  }
  const parsed = planRequestSchema.safeParse(renewed(data));
  if (!parsed.success) {
    const issue = parsed.error.issues[0];
    return { ok: false, field: issueField(issue), reason: issueReason(issue) };
  }
  const { setup, stopStep, include } = parsed.data;
  const kit = mergedKit(parsed.data.kit ?? { bodies: [], lenses: [] });
  const { lensId, focalLengthMm } = setup.camera;
  const lens = kit.lenses.find((item) => item.id === lensId);
  if (lens && (focalLengthMm < lens.shortestMm || focalLengthMm > lens.longestMm)) {
    return {
      ok: false,
      field: 'setup.camera.focalLengthMm',
      reason: `The lens ${lens.name} has no ${focalLengthMm} mm.`
    };
  }
  const input = { setup, kit, stopStep };
  const plan = planSetup(input);
  const words =
    plan.kind === 'plan'
      ? { call: callSentence(plan, 'metric'), reason: reasonSentence(plan), conflict: conflictSentences(plan) }
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
