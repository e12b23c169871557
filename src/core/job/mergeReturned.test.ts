import fc from 'fast-check';
import { expect, it } from 'vitest';
import { demoJobs, demoParts } from './demo';
import { runs } from '../testing/runs';
import { mergeReturned, mergedReturnText, type WholeJob } from './mergeReturned';

const [wedding] = demoJobs();
const whole: WholeJob = { job: wedding.job, ...demoParts(wedding) };
const change = (job: WholeJob, id: string, changes: object): WholeJob => ({
  ...job,
  setups: job.setups.map((setup) => (setup.id === id ? { ...setup, ...changes } : setup))
});
/** What is here once it has come home. */
const after = (base: WholeJob, away: WholeJob, here: WholeJob): WholeJob => {
  const home = mergeReturned(base, away, here);
  const setups = new Map(here.setups.map((setup) => [setup.id, setup]));
  for (const { id, value } of home.setups) {
    if (value) setups.set(id, value);
    else setups.delete(id);
  }
  return { ...here, job: home.job, setups: [...setups.values()] };
};
const [first, second] = whole.setups.map((setup) => setup.id) as [string, string];
const done = { ...whole.setups[0]?.taken, doneAt: '2027-06-12T13:52:00.000Z', note: 'Ferns wet.' };

it('a tick and a note made away come home beside what was planned here meanwhile', () => {
  const away = change(whole, first, { taken: done });
  const here = change(whole, first, { name: 'West door, early' });
  const home = after(whole, away, here);
  expect(home.setups[0]).toMatchObject({ name: 'West door, early', taken: { note: 'Ferns wet.' } });
  expect(mergedReturnText(mergeReturned(whole, away, here))).toBe('1 setup');
});

it('coming a second time changes nothing', () => {
  const away = change(whole, first, { taken: done });
  const home = after(whole, away, whole);
  const again = mergeReturned(away, away, home);
  expect([again.setups, again.people, again.places]).toEqual([[], [], []]);
  expect(again.job).toEqual(home.job);
  expect(mergedReturnText(again)).toBe('nothing new');
});

it('brings the order home where it was changed away, and only then', () => {
  const swapped = { ...whole, setups: [whole.setups[1], whole.setups[0], ...whole.setups.slice(2)] } as WholeJob;
  const more = { ...whole, setups: [{ ...whole.setups[3], id: 'new' }, ...whole.setups] } as WholeJob;
  const ids = (job: WholeJob) => job.setups.map((setup) => setup.id);
  expect(mergeReturned(whole, swapped, more).order).toEqual(['new', ...ids(swapped)]);
  expect(mergeReturned(whole, whole, swapped).order).toBeNull();
  expect(mergeReturned(swapped, swapped, whole).order).toBeNull();
});

it('loses nothing that was changed on one side and removed on the other', () => {
  const without = (job: WholeJob, id: string): WholeJob => ({
    ...job,
    setups: job.setups.filter((setup) => setup.id !== id)
  });
  const changed = change(whole, first, { taken: done });
  expect(after(whole, changed, without(whole, first)).setups.map((setup) => setup.id)).toContain(first);
  expect(after(whole, without(whole, first), changed).setups.map((setup) => setup.id)).toContain(first);
  expect(after(whole, without(whole, second), whole).setups.map((setup) => setup.id)).not.toContain(second);
  expect(after(whole, whole, without(whole, second)).setups.map((setup) => setup.id)).not.toContain(second);
  const extra = { ...whole, setups: [...whole.setups, { ...whole.setups[0], id: 'new' } as (typeof whole.setups)[0]] };
  expect(after(whole, extra, whole).setups.map((setup) => setup.id)).toContain('new');
  expect(after(whole, whole, extra).setups.map((setup) => setup.id)).toContain('new');
});

it('has everything of both sides, whichever setups each has changed (random)', () => {
  const ids = whole.setups.map((setup) => setup.id);
  const some = fc.subarray(ids);
  fc.assert(
    fc.property(some, some, (ticked, renamed) => {
      const away = ticked.reduce((job, id) => change(job, id, { taken: done }), whole);
      const here = renamed.reduce((job, id) => change(job, id, { name: `Renamed ${id}` }), whole);
      const home = after(whole, away, here);
      expect(home.setups).toHaveLength(ids.length);
      for (const setup of home.setups) {
        expect(setup.taken.doneAt !== null).toBe(ticked.includes(setup.id));
        expect(setup.name.startsWith('Renamed')).toBe(renamed.includes(setup.id));
      }
    }),
    { numRuns: runs(100) }
  );
});
