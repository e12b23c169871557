import { beforeAll, describe, expect, it } from 'vitest';
import { planSetup } from '../call/planSetup';
import type { PlanInput } from '../call/planInput';
import { defaultHabits } from '../habits/habits';
import { builtInKit } from '../kit/builtInKit';
import type { Kit } from '../kit/schema';
import { demoSetup } from '../testing/demo';
import { findBag, type BagAnswer } from './findBag';
import { demandOf } from './kitOptions';
import { alike, alikeSets, lookOf, type VisualSignature } from './variety';

const input = (name: string, kit: Kit = builtInKit): PlanInput => ({
  setup: demoSetup(name),
  kit,
  stopStep: 'third',
  habits: defaultHabits
});

describe('what takes a setup', () => {
  const door = input('West door');

  it('is what it is planned with, and whatever grants every wish from within the room', () => {
    const { options } = demandOf(door);
    const [planned, ...others] = options;
    expect(planned).toEqual({ needs: [door.setup.camera.bodyId, door.setup.camera.lensId], rather: 0 });
    expect(others.length).toBeGreaterThan(0);
    // Each option is said once, and another body is less welcome than another lens.
    expect(new Set(options.map(({ needs }) => [...needs].sort().join())).size).toBe(options.length);
    for (const { needs, rather } of others) {
      const anotherBody = needs[0] !== door.setup.camera.bodyId;
      expect(rather >= 3).toBe(anotherBody);
    }
  });

  it('is nothing without its body or its lens', () => {
    expect(demandOf({ ...door, kit: { ...builtInKit, lenses: [] } }).options).toEqual([]);
    expect(demandOf({ ...door, kit: { ...builtInKit, bodies: [] } }).options).toEqual([]);
  });
});

describe('the bag of a day', () => {
  const names = ['West door', 'Family on the steps'];
  const progress: number[] = [];
  let answer: BagAnswer;
  beforeAll(() => {
    const inputs = names.map((name) => input(name));
    answer = findBag({ inputs, kit: builtInKit }, (share) => progress.push(share));
  });

  it('serves every must-have with what is in it, exactly', () => {
    expect(answer.exact).toBe(true);
    expect(answer.musts).toHaveLength(2);
    expect(answer.ways.map(({ setupId }) => setupId).sort()).toEqual([...answer.musts].sort());
    for (const { needs } of answer.ways) expect(answer.items).toEqual(expect.arrayContaining([...needs]));
  });

  it('tells how far it has come, never backwards', () => {
    expect(progress.length).toBeGreaterThan(2);
    expect(progress).toEqual([...progress].sort((a, b) => a - b));
    expect(Math.max(...progress)).toBeLessThanOrEqual(1);
  });

  it('leaves a picture that is taken only if there is time out of the musts', () => {
    const door = input('West door');
    const ifTime = {
      ...door,
      setup: { ...door.setup, schedule: { ...door.setup.schedule, priority: 'ifTime' as const } }
    };
    const { musts, items } = findBag({ inputs: [ifTime], kit: builtInKit });
    expect(musts).toEqual([]);
    expect(items).toEqual([]);
  });

  it('says what a lens nobody owns would open: a slow zoom alone holds no dark, tight picture', () => {
    const door = input('West door');
    const own = builtInKit.lenses.find((lens) => lens.id === door.setup.camera.lensId);
    if (!own) throw new Error('no such lens');
    // The one lens there is opens to f/8 only: the background cannot melt as it is wanted.
    const slow: Kit = { ...builtInKit, lenses: [{ ...own, widestFNumber: 8, widestAtLong: null }] };
    const wanted: PlanInput = { ...door, kit: slow };
    const plan = planSetup(wanted);
    expect(plan.kind === 'plan' && plan.window).toBeFalsy();
    const { tight, additions } = findBag({ inputs: [wanted], kit: slow });
    expect(tight).toEqual([door.setup.id]);
    expect(additions.length).toBeGreaterThan(0);
    for (const { opens } of additions) expect(opens).toEqual([door.setup.id]);
    const [best] = additions;
    expect(best?.lensName).toMatch(/f\/(1\.\d|2(\.\d)?)\b/);
  });
});

describe('pictures that look alike', () => {
  const look = (setupId: string, changes: Partial<VisualSignature> = {}): VisualSignature => ({
    setupId,
    distanceMm: 2000,
    headShare: 0.3,
    blurShare: 0.05,
    ...changes
  });

  it('are near in distance, framing and blur, all three', () => {
    expect(alike(look('a'), look('b', { distanceMm: 2600, headShare: 0.231, blurShare: 0.075 }))).toBe(true);
    expect(alike(look('a'), look('b', { distanceMm: 2601 }))).toBe(false);
    expect(alike(look('a'), look('b', { headShare: 0.4 }))).toBe(false);
    expect(alike(look('a'), look('b', { blurShare: 0.076 }))).toBe(false);
    expect(alike(look('a', { blurShare: null }), look('b', { blurShare: null }))).toBe(false);
  });

  it('are noticed from three on, the largest set first, nobody in two', () => {
    const near = ['a', 'b', 'c', 'd'].map((id) => look(id));
    const far = ['e', 'f', 'g'].map((id) => look(id, { distanceMm: 8000, headShare: 0.1 }));
    const sets = alikeSets([...far, ...near, look('h', { headShare: 0.9 })]);
    expect(sets.map((set) => set.map(({ setupId }) => setupId))).toEqual([
      ['a', 'b', 'c', 'd'],
      ['e', 'f', 'g']
    ]);
    expect(alikeSets(near.slice(0, 2))).toEqual([]);
  });

  it('are seen by the plan: framing from the framed height, blur of what is furthest', () => {
    const door = input('West door');
    const plan = planSetup(door);
    if (plan.kind !== 'plan') throw new Error('no plan');
    const seen = lookOf('door', plan);
    expect(seen.distanceMm).toBe(plan.distanceMm);
    // From chin to crown an adult's head is about 230 mm (common practice, no source: a head is 21 to 25 cm high).
    expect(seen.headShare * plan.framedHeightMm).toBeGreaterThan(200);
    expect(seen.headShare * plan.framedHeightMm).toBeLessThan(260);
    const blurs = plan.stops[plan.selected]?.backgrounds.map((item) => item.shareOfFrameHeight) ?? [];
    expect(blurs).toContain(seen.blurShare);
  });
});
