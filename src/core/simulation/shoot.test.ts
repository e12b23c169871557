import { describe, expect, it } from 'vitest';
import type { PlanInput } from '../call/planInput';
import { planSetup } from '../call/planSetup';
import { defaultHabits, type Habits } from '../habits/habits';
import { demoJobs, demoParts } from '../job/demo';
import { resolveSetup } from '../job/resolve';
import { builtInKit } from '../kit/builtInKit';
import { demoSetup } from '../testing/demo';
import { runs } from '../testing/runs';
import { seededRandom } from '../testing/random';
import { shoot } from './shoot';

const inputOf = (setup: PlanInput['setup'], habits: Habits = defaultHabits): PlanInput => ({
  setup,
  kit: builtInKit,
  stopStep: 'third',
  habits
});
const demo = (name: string, habits?: Habits) => inputOf(demoSetup(name), habits);
const shots = (input: PlanInput, frames: number, seed = 1, refocused = true) => {
  const taken = shoot(input, seededRandom(seed), { frames, refocused });
  if (!taken) throw new Error('nothing taken');
  return taken;
};
/** Nothing ever goes wrong. */
const sure: Habits = {
  ...defaultHabits,
  focusSpreadUm: { crossPoint: 0, ordinaryPoint: 0 },
  holdMm: { standing: 0, braced: 0, kneeling: 0, monopod: 0, tripod: 0 },
  leanSpreadMm: 0,
  swayMm: { standing: 0, seated: 0, embracing: 0, child: 0, pet: 0, heldThing: 0 }
};

describe('the simulated camera', () => {
  it('keeps as many sharp frames as the odds say, in every setup of the demo', () => {
    const frames = runs(3000);
    let tried = 0;
    for (const job of demoJobs()) {
      const { people, places, setups } = demoParts(job);
      const cast = {
        person: (id: string) => people.find((person) => person.id === id),
        place: (id: string) => places.find((place) => place.id === id)
      };
      for (const [index, stored] of setups.entries()) {
        const input = inputOf(resolveSetup(stored, cast));
        const plan = planSetup(input);
        const taken = shoot(input, seededRandom(100 + index), { frames });
        if (!taken || plan.kind !== 'plan') continue;
        tried++;
        const odds = plan.stops[plan.selected]?.odds ?? NaN;
        const share = taken.filter((shot) => shot.sharp).length / frames;
        const error = Math.sqrt((odds * (1 - odds)) / frames);
        expect(Math.abs(share - odds), `${stored.name}: ${share} against ${odds}`).toBeLessThan(4 * error + 0.01);
      }
    }
    expect(tried).toBeGreaterThan(10);
  });

  it('has closed eyes as often as the frames to shoot take into account', () => {
    const input = demo('Family on the steps');
    const plan = planSetup(input);
    if (plan.kind !== 'plan') throw new Error('no plan');
    const open = plan.stops[plan.selected]?.frames.eyesOpen ?? NaN;
    const frames = runs(4000);
    const share = shots(input, frames).filter((shot) => shot.eyesOpen).length / frames;
    expect(Math.abs(share - open)).toBeLessThan(4 * Math.sqrt((open * (1 - open)) / frames));
  });

  it('where nothing goes wrong takes the very picture that is planned', () => {
    const input = demo('West door', sure);
    const plan = planSetup(input);
    if (plan.kind !== 'plan') throw new Error('no plan');
    const entry = plan.stops[plan.selected];
    const [shot] = shots(input, 1);
    expect(shot?.planeMm).toBeCloseTo(entry?.planeMm ?? NaN, 6);
    shot?.subjects.forEach((subject, index) => {
      subject.points.forEach((point, at) =>
        expect(point.ratio).toBeCloseTo(entry?.sharpness[index]?.[at]?.ratio ?? NaN, 6)
      );
    });
    expect(shot?.sharp).toBe(true);
  });

  it('tells the truth: a point behind the plane has a positive disc, and sharp is what the discs say', () => {
    for (const shot of shots(demo('Family on the steps'), runs(200))) {
      for (const { points, decides } of shot.subjects) {
        for (const point of points) expect(Math.sign(point.defocusMm)).toBe(Math.sign(point.depthMm - shot.planeMm));
        if (decides && shot.sharp)
          for (const point of points) if (point.required) expect(point.ratio).toBeLessThanOrEqual(1);
      }
    }
  });

  it('repeats its error where it is not focused anew, and the same seed is the same burst', () => {
    const input = demo('West door');
    const once = shots(input, 20, 7, false);
    expect(new Set(once.map((shot) => shot.focusErrorMm)).size).toBe(1);
    expect(new Set(once.map((shot) => shot.holdMm)).size).toBe(20);
    expect(new Set(shots(input, 20, 7).map((shot) => shot.focusErrorMm)).size).toBe(20);
    expect(shots(input, 5, 7)).toEqual(shots(input, 5, 7));
    expect(shots(input, 5, 8)).not.toEqual(shots(input, 5, 7));
  });

  it('lands elsewhere as often as the ways of focusing say', () => {
    const setup = demoSetup('Family on the steps');
    const left = { ...setup, camera: { ...setup.camera, focusArea: 'wholeFrame' as const } };
    const input = inputOf(left);
    const plan = planSetup(input);
    if (plan.kind !== 'plan') throw new Error('no plan');
    const planned = plan.stops[plan.selected]?.landings ?? [];
    expect(planned.length).toBeGreaterThan(1);
    const frames = runs(3000);
    const taken = shots(input, frames, 3);
    const share = taken.filter((shot) => shot.onTarget).length / frames;
    const target = planned.filter(({ depth }) => depth === plan.stops[plan.selected]?.target.focusDistanceMm);
    const meant = target.reduce((sum, { chance }) => sum + chance, 0);
    expect(Math.abs(share - meant)).toBeLessThan(4 * Math.sqrt((meant * (1 - meant)) / frames) + 0.02);
  });

  it('takes nothing where nothing can be planned', () => {
    const setup = { ...demoSetup('West door'), people: [], things: [] };
    expect(shoot(inputOf(setup), seededRandom(1), { frames: 3 })).toBeNull();
  });
});
