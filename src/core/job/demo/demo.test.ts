import { describe, expect, it } from 'vitest';
import { planSetup } from '../../call/planSetup';
import { defaultHabits } from '../../habits/habits';
import { builtInKit } from '../../kit/builtInKit';
import { jobSchema } from '../../job/schema';
import { setupSchema, type Setup } from '../../setup/schema';
import { demoJobs, demoParts } from '.';
import { demoSetup } from '../../testing/demo';

const setups = demoJobs().flatMap((job) => job.setups);
const planned = (setup: Setup) => planSetup({ setup, kit: builtInKit, stopStep: 'half', habits: defaultHabits });

describe('the demo', () => {
  it('is valid, with names and ids that occur once', () => {
    for (const { job } of demoJobs()) expect(jobSchema.parse(job)).toEqual(job);
    for (const setup of setups) expect(setupSchema.parse(setup)).toEqual(setup);
    expect(new Set(setups.map((setup) => setup.id)).size).toBe(setups.length);
    expect(new Set(setups.map((setup) => setup.name)).size).toBe(setups.length);
    for (const { people, things, backgrounds } of setups) {
      const ids = [...people, ...things, ...backgrounds].map((item) => item.id);
      expect(new Set(ids).size).toBe(ids.length);
    }
    const people = demoJobs().flatMap((demo) => demoParts(demo).people.map((person) => person.id));
    expect(new Set(people).size).toBe(people.length);
  });

  it('has the wedding’s nine setups and more, and the band from its youngest to all twenty-two', () => {
    const [wedding, band] = demoJobs();
    expect(wedding.setups.length).toBeGreaterThanOrEqual(9);
    expect(Math.max(...wedding.setups.map((setup) => setup.people.length))).toBe(14);
    expect(Math.max(...band.setups.map((setup) => setup.people.length))).toBe(22);
  });

  it('has a call for every setup, on somebody in it, inside what the lens and the room allow', () => {
    for (const setup of setups) {
      const plan = planned(setup);
      if (plan.kind !== 'plan') throw new Error(`${setup.name}: no call`);
      expect(plan.beyondRoomMm, setup.name).toBe(0);
      const { target } = plan.stops[plan.selected] ?? {};
      const subjects = [...setup.people, ...setup.things].map((item) => item.id);
      if (setup.camera.focusMethod !== 'magnifier') expect(subjects, setup.name).toContain(target?.subjectId);
    }
  });

  it('has at least two true conflicts, of faces and a background', () => {
    const conflicts = setups.flatMap((setup) => {
      const plan = planned(setup);
      return plan.kind === 'plan' && plan.conflict?.kind === 'facesAgainstBackground' ? [setup.name] : [];
    });
    expect(conflicts.length).toBeGreaterThanOrEqual(2);
  });

  it('is new each time, so that what is done to one copy leaves the next alone', () => {
    const [first] = demoJobs()[0].setups;
    expect(first).toEqual(demoJobs()[0].setups[0]);
    expect(first).not.toBe(demoJobs()[0].setups[0]);
    expect(() => demoSetup('No such picture')).toThrow('No such picture');
  });
});
