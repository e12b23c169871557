import { describe, expect, it } from 'vitest';
import { demoJobs } from '../job/demo';
import { builtInKit } from '../kit/builtInKit';
import { defaultHabits } from '../habits/habits';
import { depthOfField } from '../optics/depthOfField';
import { newBackground, newPerson, newSetup } from '../setup/defaults';
import { focusAreas, type FocusArea, type Person, type Setup } from '../setup/schema';
import { seededNormal, seededRandom } from '../testing/random';
import { runs } from '../testing/runs';
import { focusAt, oddsInput } from './focus';
import type { Plan, StopPlan } from './plan';
import { planSetup } from './planSetup';
import { prepare } from './situation';

const inputOf = (setup: Setup) => ({ setup, kit: builtInKit, stopStep: 'full', habits: defaultHabits }) as const;

function planned(setup: Setup): Plan {
  const plan = planSetup(inputOf(setup));
  if (plan.kind === 'noPlan') throw new Error(plan.reason.code);
  return plan;
}

const with_ = (setup: Setup, focusArea: FocusArea): Setup => ({ ...setup, camera: { ...setup.camera, focusArea } });

function setupOf(people: readonly Person[], changes: Partial<Setup> = {}, distanceMm = 2000): Setup {
  const base = newSetup('s', 'S', { people: [...people], ...changes });
  return {
    ...base,
    camera: { ...base.camera, heightMm: 1572, placement: { kind: 'distance', distanceMm } }
  };
}

const selected = (plan: Plan): StopPlan => {
  const entry = plan.stops[plan.selected];
  if (!entry) throw new Error('no stop');
  return entry;
};

const share = (entry: StopPlan, of: (landing: StopPlan['landings'][number]) => boolean) =>
  entry.landings.filter(of).reduce((sum, { chance }) => sum + chance, 0);

describe('what the camera takes', () => {
  it('is always something: the chances are one, in every area of every demo setup', () => {
    for (const { setups } of demoJobs()) {
      for (const setup of setups) {
        for (const area of focusAreas) {
          const entry = selected(planned(with_(setup, area)));
          expect(
            share(entry, () => true),
            `${setup.name} ${area}`
          ).toBeCloseTo(1, 9);
          expect(entry.odds).toBeLessThanOrEqual(1);
        }
      }
    }
  });

  it('left to itself is wrong a quarter to a third of the time (common practice, no source)', () => {
    const lost = demoJobs()
      .flatMap(({ setups }) => setups)
      // Of ordinary pictures: one is stitched, one is taken through leaves to be missed.
      .filter(({ camera, name }) => !camera.stitch && name !== 'Through the ferns')
      .map((setup) => {
        const plan = planned(setup);
        const own = selected(plan);
        const left = planned(with_(setup, 'wholeFrame')).stops[plan.selected];
        return 1 - (left?.odds ?? 0) / own.odds;
      });
    const mean = lost.reduce((sum, item) => sum + item, 0) / lost.length;
    expect(mean).toBeGreaterThan(0.25);
    expect(mean).toBeLessThan(1 / 3);
  });

  it('under one point on an eye is that eye, close by; from further off the rest of the face too', () => {
    const near = selected(planned(setupOf([newPerson('a', 'A')], {}, 1200)));
    expect(share(near, ({ part }) => part === 'target')).toBeGreaterThan(0.95);
    const far = selected(planned(setupOf([newPerson('a', 'A')], {}, 8000)));
    expect(share(far, ({ part }) => part === 'target')).toBeLessThan(0.7);
    expect(share(far, ({ id }) => id === 'a')).toBeGreaterThan(0.9);
  });

  it('is the smaller point’s aim more often', () => {
    const of = (pointSize: Setup['camera']['pointSize']) => {
      const setup = setupOf([newPerson('a', 'A')], {}, 3000);
      return share(
        selected(planned({ ...setup, camera: { ...setup.camera, pointSize } })),
        ({ part }) => part === 'target'
      );
    };
    expect(of('pinpoint')).toBeGreaterThan(0.99);
    expect(of('pinpoint')).toBeGreaterThan(of('medium'));
    expect(of('small')).toBeGreaterThan(of('large'));
  });

  it('in a zone is what stands in front more often than the same behind', () => {
    const ferns = (depthMm: number) => [newBackground('ferns', 'ferns', { depthMm, surface: 'brick' })];
    const taken = (depthMm: number) =>
      share(
        selected(planned(with_(setupOf([newPerson('a', 'A')], { backgrounds: ferns(depthMm) }, 3000), 'zone'))),
        ({ id }) => id === 'ferns'
      );
    expect(taken(400)).toBeGreaterThan(taken(4000));
  });

  it('by eye detection is lost on whom it cannot find: turned away, veiled, far off', () => {
    const found = (changes: Partial<Person>, distanceMm = 2500) =>
      share(
        selected(planned(with_(setupOf([newPerson('a', 'A', changes)], {}, distanceMm), 'eyeDetection'))),
        ({ part }) => part === 'target' || part === 'eye'
      );
    const { look } = newPerson('a', 'A');
    expect(found({})).toBeGreaterThan(0.9);
    expect(found({ look: { ...look, headwear: 'veil' } })).toBeLessThan(0.7);
    expect(found({ headYawDeg: 80 })).toBeLessThan(0.6);
    expect(found({}, 25_000)).toBeLessThan(0.75);
  });

  it('is beyond doubt by hand, and in a picture focused to a distance', () => {
    const setup = with_(setupOf([newPerson('a', 'A')]), 'wholeFrame');
    const byHand = { ...setup, camera: { ...setup.camera, focusMethod: 'magnifier' as const } };
    expect(selected(planned(byHand)).landings).toHaveLength(1);
    const far: Setup = { ...setup, intent: { ...setup.intent, target: { kind: 'distance', distanceMm: 2000 } } };
    expect(selected(planned(far)).landings).toHaveLength(1);
  });
});

describe('odds over all it may land on', () => {
  it('agree with Monte Carlo within 1 %, also where people move', () => {
    const random = seededRandom(20261126);
    const normal = seededNormal(20261127);
    const throws = runs(40_000);
    const cases = runs(6);
    for (let i = 0; i < cases; i++) {
      const people = [0, 1, 2].map((n) =>
        newPerson(`p${n}`, `P${n}`, {
          depthMm: Math.round(n * 250 * random()),
          lateralMm: (n - 1) * 450,
          towardsMmPerS: i % 3 === 0 ? 400 : 0,
          acrossMmPerS: i % 3 === 1 ? 120 : 0,
          mood: i % 2 === 0 ? 'still' : 'restless'
        })
      );
      const area = focusAreas[i % focusAreas.length] ?? 'zone';
      const base = with_(setupOf(people, { backgrounds: [newBackground('b', 'B', { depthMm: 900 })] }, 3500), area);
      const setup: Setup = { ...base, camera: { ...base.camera, focusMode: i % 2 === 0 ? 'single' : 'automatic' } };
      const plan = planned(setup);
      const entry = plan.stops[Math.min(plan.stops.length - 1, 2)];
      const prepared = prepare(inputOf(setup));
      if (!entry || prepared.kind === 'noPlan') throw new Error('no plan');
      const { situation } = prepared;
      const [group] = situation.groups;
      const aimed = group?.eyes.find((item) => item.focusDistanceMm === entry.target.focusDistanceMm);
      if (!group || !aimed) throw new Error('no target');
      const foci = entry.landings.map(({ depth, chance }) => {
        const focus = focusAt(situation, entry.stop.fNumber, { ...aimed, focusDistanceMm: depth }, entry.light);
        return { chance, input: oddsInput(situation, focus, group.members) };
      });
      let sharp = 0;
      for (let n = 0; n < throws; n++) {
        let left = random();
        const landed = foci.find(({ chance }) => (left -= chance) <= 0) ?? foci[0];
        if (!landed) throw new Error('no landing');
        const { f, N, P, s, bias, spread, allowance, members } = landed.input;
        const plane = s + bias;
        const at = 1 / (1 / plane + (spread / plane ** 2) * normal());
        const all = members.every((member) => {
          const limits = depthOfField(f, N, member.allowance ?? allowance, at, P);
          const moved = member.sway * normal();
          return member.nearest + moved >= limits.near && member.furthest + moved <= limits.far;
        });
        if (all) sharp += 1;
      }
      const error = Math.sqrt(0.25 / throws);
      expect(Math.abs(sharp / throws - entry.odds), `${area}: ${sharp / throws} against ${entry.odds}`).toBeLessThan(
        Math.max(0.01, 4 * error)
      );
    }
  });
});
