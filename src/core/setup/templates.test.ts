import { describe, expect, it } from 'vitest';
import { planSetup } from '../call/planSetup';
import { defaultHabits } from '../habits/habits';
import { aimAtPeople } from './aim';
import { builtInKit, mergedKit } from '../kit/builtInKit';
import { newPerson, newSetup, newThing } from './defaults';
import { findRemedies } from '../call/remedies/findRemedies';
import { demoJobs } from '../job/demo';
import { demoSetup } from '../testing/demo';
import { eyesMidpoint, toCamera, viewpoint } from './scene';
import { kitSchema, type Body, type Lens } from '../kit/schema';
import { jobSchema } from '../job/schema';
import { setupSchema, wishes } from './schema';
import { secondOptions, setupFrom, templates } from './templates';

const body = builtInKit.bodies[0] as Body;

describe('what ships', () => {
  it.each(templates)('the %s template is valid and has a usable answer at once', (template) => {
    const setup = setupFrom({ template }, 'new');
    expect(setupSchema.safeParse(setup).error).toBeUndefined();
    const plan = planSetup({ setup, kit: builtInKit, stopStep: 'half', habits: defaultHabits });
    expect(plan.kind === 'plan' && plan.window).toBeTruthy();
  });

  it.each(templates)('every way through the %s template is valid, can be planned, and holds the faces', (template) => {
    for (const second of secondOptions(template)) {
      for (const wish of wishes) {
        const setup = setupFrom({ template, second, wish }, 'new');
        expect(setupSchema.safeParse(setup).error).toBeUndefined();
        expect(setup.backgrounds.every((item) => item.wish === wish)).toBe(true);
        const plan = planSetup({ setup, kit: builtInKit, stopStep: 'half', habits: defaultHabits });
        expect(plan.kind).toBe('plan');
      }
      if (typeof second === 'number') expect(setupFrom({ template, second }, 'new').people).toHaveLength(second);
    }
  });

  it('a second choice of another template is not taken', () => {
    expect(setupFrom({ template: 'onePerson', second: 14 }, 'new')).toEqual(
      setupFrom({ template: 'onePerson' }, 'new')
    );
  });

  it('the demo has the pictures of the wedding in the order of the day and a band of twenty-two', () => {
    const [wedding, band] = demoJobs();
    expect(wedding.setups.slice(0, 11).map((setup) => setup.name)).toEqual([
      'West door',
      'Rings',
      'Under the palms',
      'Walk up the nave',
      'Family on the steps',
      'Gran Marguerite and Pilot',
      'Child on the steps',
      'Through the ferns',
      'The whole nave',
      'Speeches',
      'First dance'
    ]);
    expect(demoSetup('Family on the steps').people).toHaveLength(14);
    expect(demoSetup('Forty years').people).toHaveLength(22);
    expect(band.setups.some((setup) => setup.things.length > 0)).toBe(true);
    expect(() => demoSetup('nobody')).toThrow(/nobody/);
  });

  it.each(demoJobs())(
    'the kit and the demo job $job.name are valid; it can be planned throughout',
    ({ job, setups }) => {
      expect(kitSchema.safeParse(builtInKit).error).toBeUndefined();
      expect(jobSchema.safeParse(job).error).toBeUndefined();
      const plans = setups.map((setup) => {
        expect(setupSchema.safeParse(setup).error).toBeUndefined();
        return planSetup({ setup, kit: builtInKit, stopStep: job.stopStep, habits: defaultHabits });
      });
      const windows = plans.filter((plan) => plan.kind === 'plan' && plan.window);
      const conflicts = plans.filter((plan) => plan.kind === 'plan' && plan.conflict);
      expect(windows.length).toBeGreaterThanOrEqual(3);
      expect(windows.length + conflicts.length).toBe(setups.length);
    }
  );

  it('West door with the 50 and the family with the 85 are true conflicts with something to be done', () => {
    for (const name of ['West door, the 50', 'Family, the 85']) {
      const input = { setup: demoSetup(name), kit: builtInKit, stopStep: 'half' as const, habits: defaultHabits };
      const plan = planSetup(input);
      expect(plan.kind === 'plan' && plan.conflict?.kind).toBe('facesAgainstBackground');
      expect(findRemedies(input).length).toBeGreaterThanOrEqual(2);
    }
  });

  it('the demo’s wedding day, 12 June 2027, is a Saturday', () => {
    expect(new Date(`${demoJobs()[0].job.date}T12:00:00Z`).getUTCDay()).toBe(6);
  });

  it('own kit replaces built-in kit of the same id and adds the rest', () => {
    const [lens] = builtInKit.lenses as [Lens];
    const merged = mergedKit({
      bodies: [],
      lenses: [
        { ...lens, name: 'Mine' },
        { ...lens, id: 'own', name: 'Own' }
      ]
    });
    expect(merged.lenses).toHaveLength(builtInKit.lenses.length + 1);
    expect(merged.lenses[0]?.name).toBe('Mine');
  });
});

describe('aiming at the people', () => {
  it('brings the middle of the faces within half a degree of the axis', () => {
    const setup = newSetup('s', 'S', {
      people: [newPerson('a', 'A', { lateralMm: 700, floorMm: 600 }), newPerson('b', 'B', { lateralMm: 1100 })]
    });
    const view = viewpoint(setup, body);
    const aimed = viewpoint({ ...setup, camera: { ...setup.camera, ...aimAtPeople(setup, view) } }, body);
    const [first, second] = setup.people.map((person) => toCamera(aimed, eyesMidpoint(person)));
    const angle = (axis: 'x' | 'y') =>
      (Math.atan2(first?.[axis] ?? 0, first?.z ?? 1) + Math.atan2(second?.[axis] ?? 0, second?.z ?? 1)) / 2;
    expect(Math.abs((angle('x') * 180) / Math.PI)).toBeLessThan(1);
    expect(Math.abs((angle('y') * 180) / Math.PI)).toBeLessThan(1);
  });

  it('looks straight on when nobody is there, and at a thing when only that is', () => {
    const empty = newSetup('s', 'S', { people: [] });
    expect(aimAtPeople(empty, viewpoint(empty, body))).toEqual({ yawDeg: 0, pitchDeg: 0 });
    const low = { ...empty, things: [newThing('t', 'T', { heightMm: 300 })] };
    expect(aimAtPeople(low, viewpoint(low, body)).pitchDeg).toBeLessThan(-20);
  });
});
