import { describe, expect, it } from 'vitest';
import { planSetup } from '../call/planSetup';
import { aimAtPeople } from './aim';
import { builtInKit, mergedKit } from './builtInKit';
import { newPerson, newSetup, newThing } from './defaults';
import { demoJob } from './demo';
import { eyesMidpoint, toCameraFrame, viewpoint } from './scene';
import { jobSchema, kitSchema, setupSchema, type Body, type Lens } from './schema';
import { setupFrom, templates } from './templates';

const body = builtInKit.bodies[0] as Body;

describe('what ships', () => {
  it.each(templates)('the %s template is valid and has a usable answer at once', (template) => {
    const setup = setupFrom(template, 'new');
    expect(setupSchema.safeParse(setup).error).toBeUndefined();
    const plan = planSetup({ setup, kit: builtInKit, stopStep: 'half' });
    expect(plan.kind === 'plan' && plan.window).toBeTruthy();
  });

  it('the kit and the demo are valid; the demo has clean answers and a true conflict', () => {
    expect(kitSchema.safeParse(builtInKit).error).toBeUndefined();
    const { job, setups } = demoJob();
    expect(jobSchema.safeParse(job).error).toBeUndefined();
    const plans = setups.map((setup) => {
      expect(setupSchema.safeParse(setup).error).toBeUndefined();
      return planSetup({ setup, kit: builtInKit, stopStep: job.stopStep });
    });
    const windows = plans.filter((plan) => plan.kind === 'plan' && plan.window);
    const conflicts = plans.filter((plan) => plan.kind === 'plan' && plan.conflict);
    expect(windows.length).toBeGreaterThanOrEqual(3);
    expect(conflicts.length).toBeGreaterThanOrEqual(1);
    expect(windows.length + conflicts.length).toBe(setups.length);
  });

  it('the demo’s wedding day, 12 June 2027, is a Saturday', () => {
    expect(new Date(`${demoJob().job.date}T12:00:00Z`).getUTCDay()).toBe(6);
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
    const view = viewpoint(setup.camera, body);
    const aimed = viewpoint({ ...setup.camera, ...aimAtPeople(setup, view) }, body);
    const [first, second] = setup.people.map((person) => toCameraFrame(aimed, eyesMidpoint(person)));
    const angle = (axis: 'x' | 'y') =>
      (Math.atan2(first?.[axis] ?? 0, first?.z ?? 1) + Math.atan2(second?.[axis] ?? 0, second?.z ?? 1)) / 2;
    expect(Math.abs((angle('x') * 180) / Math.PI)).toBeLessThan(1);
    expect(Math.abs((angle('y') * 180) / Math.PI)).toBeLessThan(1);
  });

  it('looks straight on when nobody is there, and at a thing when only that is', () => {
    const empty = newSetup('s', 'S', { people: [] });
    expect(aimAtPeople(empty, viewpoint(empty.camera, body))).toEqual({ yawDeg: 0, pitchDeg: 0 });
    const low = { ...empty, things: [newThing('t', 'T', { heightMm: 300 })] };
    expect(aimAtPeople(low, viewpoint(low.camera, body)).pitchDeg).toBeLessThan(-20);
  });
});
