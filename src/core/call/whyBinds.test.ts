/** A reason names what indeed binds: relax it, and the call moves, or the reason is another. */
import { describe, expect, it } from 'vitest';
import type { Habits } from '../habits/habits';
import type { Body, Kit } from '../kit/schema';
import type { Person, Setup } from '../setup/schema';
import { variedSetups } from '../testing/variedSetups';
import { decidingSubjects } from '../words/call';
import { whyTarget } from '../words/why';
import { lightLevel, type FloorRule } from './light';
import type { Bound, Plan } from './plan';
import type { PlanInput } from './planInput';
import { planSetup } from './planSetup';

const all = variedSetups(200, true).map((item): PlanInput => ({ ...item, stopStep: 'third' }));

const planned = (input: PlanInput): Plan | null => {
  const plan = planSetup(input);
  return plan.kind === 'plan' ? plan : null;
};
const withSetup = (input: PlanInput, change: (setup: Setup) => Partial<Setup>): PlanInput => ({
  ...input,
  setup: { ...input.setup, ...change(input.setup) }
});
const withPeople = (input: PlanInput, of: (person: Person) => boolean, changes: Partial<Person>): PlanInput =>
  withSetup(input, ({ people }) => ({ people: people.map((item) => (of(item) ? { ...item, ...changes } : item)) }));
const withBodies = (input: PlanInput, changes: (body: Body) => Partial<Body>): PlanInput => {
  const kit: Kit = { ...input.kit, bodies: input.kit.bodies.map((body) => ({ ...body, ...changes(body) })) };
  return { ...input, kit };
};
const withIntent = (input: PlanInput, changes: Partial<Setup['intent']>): PlanInput =>
  withSetup(input, ({ intent }) => ({ intent: { ...intent, ...changes } }));
const withHabits = (input: PlanInput, changes: Partial<Habits>): PlanInput => ({
  ...input,
  habits: { ...input.habits, ...changes }
});

/** Looked at so that far more blur is allowed. */
const inSmall = (input: PlanInput): PlanInput => withIntent(input, { viewing: { kind: 'pixels', pixels: 40 } });

/** The setup without what a bound names; null where it is the lens itself, which ends the window by ending. */
function without(input: PlanInput, plan: Plan, bound: Bound): PlanInput | null {
  switch (bound.kind) {
    case 'lens':
      return null;
    case 'odds':
      return withIntent(input, { oddsWanted: 0.01 });
    case 'point':
    case 'lensEdge':
    case 'movement': {
      // They may be soft, thing or person; who alone decides is looked at in a smaller picture.
      if (decidingSubjects(plan).length < 2) return inSmall(input);
      const soft = withPeople(input, ({ id }) => id === bound.subjectId, { importance: 'maySoft' });
      return withSetup(soft, ({ things }) => ({
        things: things.map((item) => (item.id === bound.subjectId ? { ...item, importance: 'maySoft' } : item))
      }));
    }
    case 'background':
      return withSetup(input, ({ backgrounds }) => ({
        backgrounds: backgrounds.map((item) => (item.id === bound.backgroundId ? { ...item, wish: 'free' } : item))
      }));
    case 'lensBlur':
      return inSmall(input);
    case 'light':
      return withBodies(
        withSetup(input, ({ light }) => ({ light: { ...light, flash: null, shutterS: null } })),
        ({ isoLimit, fastestShutterS }) => ({ isoLimit: isoLimit * 256, fastestShutterS: fastestShutterS / 256 })
      );
    case 'shake':
      return withHabits(input, { shakeShare: { standing: 0, braced: 0, kneeling: 0, monopod: 0, tripod: 0 } });
  }
}

describe('what ends the window', () => {
  it.each(['lower', 'upper'] as const)('at its %s end is what is said', (end) => {
    const seen = new Map<Bound['kind'], number>();
    for (const input of all) {
      const plan = planned(input);
      if (!plan?.window) continue;
      const bound = plan[end];
      const beyond = end === 'lower' ? plan.window.first - 1 : plan.window.last + 1;
      if (bound.kind === 'lens') {
        expect(plan.stops[beyond], input.setup.name).toBeUndefined();
        continue;
      }
      const relaxed = without(input, plan, bound);
      const there = relaxed && planned(relaxed);
      // Nobody left who decides.
      if (!there) continue;
      const reaches = there.window !== null && there.window.first <= beyond && beyond <= there.window.last;
      expect(
        reaches || JSON.stringify(there[end]) !== JSON.stringify(bound),
        `${input.setup.name}: ${JSON.stringify(bound)}`
      ).toBe(true);
      seen.set(bound.kind, (seen.get(bound.kind) ?? 0) + 1);
    }
    // It was asked of what mostly ends windows.
    expect([...seen.values()].reduce((sum, item) => sum + item, 0)).toBeGreaterThan(40);
    expect([...seen.keys()].length).toBeGreaterThan(2);
  });
});

/** The setup with a shutter rule four times as long; null for rules that are no rule of the setup. */
function slower(input: PlanInput, rule: FloorRule): PlanInput | null {
  const floors = (changes: (now: Setup['light']['floors']) => Partial<Setup['light']['floors']>) =>
    withSetup(input, ({ light }) => ({ light: { ...light, floors: { ...light.floors, ...changes(light.floors) } } }));
  switch (rule) {
    case 'people':
    case 'close':
      return floors(({ peopleS }) => ({ peopleS: peopleS * 4 }));
    case 'restless':
      return floors(({ restlessS }) => ({ restlessS: restlessS * 4 }));
    case 'group':
      return floors(({ groupS }) => ({ groupS: groupS * 4 }));
    case 'child':
      return floors(({ childS, restlessS }) => ({ childS: childS * 4, restlessS: restlessS * 4 }));
    case 'moving':
      return floors(({ movingS }) => ({ movingS: movingS * 4 }));
    case 'lively':
      return floors(({ livelyS }) => ({ livelyS: livelyS * 4 }));
    case 'shake':
    case 'movement':
      return withHabits(input, { shakeAtMost: Math.min(1, input.habits.shakeAtMost * 2) });
    case 'isoLimit':
      return withBodies(input, ({ isoLimit }) => ({ isoLimit: isoLimit * 2 }));
    case 'focalLength':
    case 'tripod':
    case 'sync':
    case 'chosen':
      return null;
  }
}

it('the shutter is held by the rule that is said: relaxed, it is another time, or another rule', () => {
  const seen = new Set<FloorRule>();
  for (const input of all) {
    const plan = planned(input);
    const entry = plan?.stops[plan.selected];
    if (!entry || lightLevel(input.setup) === null) continue;
    // With light enough for a shorter time at the lowest ISO no rule is named.
    if (entry.light.shutterS < entry.light.floorS * 0.98) continue;
    // A flash that is the key light has a slowest time of its own; of rules only its sync time is named.
    const { flash } = input.setup.light;
    if (flash && flash.use !== 'fill') continue;
    const relaxed = slower(input, entry.light.floorRule);
    if (!relaxed) continue;
    const stop = { kind: 'chosen', fNumber: entry.stop.fNumber } as const;
    const there = planned(withIntent(relaxed, { stop }));
    const then = there?.stops[there.selected];
    if (then?.stop.label !== entry.stop.label) continue;
    const moved = then.light.shutterS !== entry.light.shutterS || then.light.floorRule !== entry.light.floorRule;
    expect(moved, `${input.setup.name}: ${entry.light.floorRule}`).toBe(true);
    seen.add(entry.light.floorRule);
  }
  expect(seen.size).toBeGreaterThan(4);
});

it('why the focus lies there is what the figures say', () => {
  let front = 0;
  let shared = 0;
  for (const input of all) {
    const plan = planned(input);
    const entry = plan?.stops[plan.selected];
    if (!plan || !entry) continue;
    const said = whyTarget(input.setup, plan, entry, 'metric');
    const depths = decidingSubjects(plan).flatMap(({ points }) =>
      points.filter(({ required }) => required).map(({ depth }) => depth)
    );
    const [nearest, furthest] = [Math.min(...depths), Math.max(...depths)];
    if (said.includes('reaches back over it') || said.includes('as good as any')) {
      expect(entry.farMm ?? Infinity, input.setup.name).toBeGreaterThanOrEqual(furthest - 1e-6);
      front += 1;
    }
    if (said.includes('equally sharp') && entry.target.subjectId !== null) {
      const [a, b] = [1 / nearest - 1 / entry.planeMm, 1 / entry.planeMm - 1 / furthest];
      expect(Math.abs(a - b), input.setup.name).toBeLessThanOrEqual(0.25 * Math.max(a, b) + 1e-12);
      shared += 1;
    }
  }
  expect(front).toBeGreaterThan(3);
  expect(shared).toBeGreaterThan(1);
});
