/** What is asked beside the call, of setups of every sort: it agrees with the call, and is nothing where there is none. */
import { describe, expect, it } from 'vitest';
import { variedSetups } from '../testing/variedSetups';
import { alternatives } from './alternatives';
import { asFocusTarget } from './focusTarget';
import { lineUp } from './lineUp';
import type { PlanInput } from './planInput';
import { planSetup } from './planSetup';
import { combineRemedies, findCombinations } from './remedies/combine';
import { findRemedies } from './remedies/findRemedies';
import { distanceSensitivity } from './sensitivity';
import { whatIfSteadier } from './whatIf';

const calm = variedSetups(40, true).map((item): PlanInput => ({ ...item, stopStep: 'full' }));
const withCamera = (input: PlanInput, camera: Partial<PlanInput['setup']['camera']>): PlanInput => ({
  ...input,
  setup: { ...input.setup, camera: { ...input.setup.camera, ...camera } }
});

describe('where nothing can be planned', () => {
  const [some] = calm;
  if (!some) throw new Error('no setup');
  const nothing: readonly (readonly [string, PlanInput])[] = [
    ['the lens is gone', withCamera(some, { lensId: 'gone' })],
    ['the body is gone', withCamera(some, { bodyId: 'gone' })],
    ['nobody is there', { ...some, setup: { ...some.setup, people: [], things: [] } }],
    ['the lens cannot focus so near', withCamera(some, { placement: { kind: 'distance', distanceMm: 60 } })]
  ];
  it.each(nothing)('because %s, nothing else is answered', (_, input) => {
    expect(planSetup(input).kind).toBe('noPlan');
    expect(alternatives(input)).toEqual({ targets: [], styles: [] });
    expect(distanceSensitivity(input)).toBeNull();
    expect(whatIfSteadier(input)).toEqual([]);
    expect(findRemedies(input)).toEqual([]);
    expect(findCombinations(input)).toEqual([]);
    const part = { kind: 'stepBack', amount: 100, unit: 'mm', subject: '' } as const;
    expect(combineRemedies(input, [part])).toBeUndefined();
  });

  it('with another lens there may be something', () => {
    const gone = withCamera(some, { bodyId: 'gone' });
    expect(lineUp(gone)).toEqual([]);
  });
});

describe('another target', () => {
  it('holds from the stop the call would name for it', () => {
    let named = 0;
    for (const input of calm) {
      const { setup } = input;
      if (setup.intent.frames === 'two' || setup.camera.stitch) continue;
      for (const { target, holdsFrom } of alternatives(input).targets) {
        if (target.feature !== 'leftEye' && target.feature !== 'rightEye') continue;
        const chosen = { ...setup, intent: { ...setup.intent, target: asFocusTarget(target, setup) } };
        const plan = planSetup({ ...input, setup: chosen });
        if (plan.kind !== 'plan') throw new Error('no plan');
        expect(holdsFrom, setup.name).toBe(plan.stops.find(({ facesHold }) => facesHold)?.stop.label ?? null);
        if (holdsFrom !== null) named += 1;
      }
    }
    expect(named).toBeGreaterThan(10);
  });
});
