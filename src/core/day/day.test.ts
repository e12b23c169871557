import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { demoJobs, demoParts } from '../job/demo';
import { runs } from '../testing/runs';
import { usualSchedule, type Schedule } from '../setup/schedule';
import {
  betterOrderWords,
  clashWords,
  clockAgainstPlan,
  costWords,
  dayTitle,
  numbersWords,
  readClock
} from '../words/day';
import { fallWithout, forcedBy, smallestBag, wayWith, type Demand } from './bag';
import { dayCast, rolesOf, withRoles } from './cast';
import { betterOrder, withTimes } from './order';
import { stretches, timetable, type DayItem } from './timetable';

let next = 0;
const item = (lensId: string, placeId: string, schedule: Partial<Schedule> = {}, bodyId = 'main'): DayItem => ({
  id: `s${next++}`,
  name: lensId,
  bodyId,
  lensId,
  placeId,
  schedule: { ...usualSchedule, ...schedule }
});

/** @throws when there is none */
const first = <T>(item: T | null | undefined): T => {
  if (item == null) throw new Error('nothing there');
  return item;
};

describe('a day one after the other', () => {
  it('counts a change when the lens of that body changes, not when the body does', () => {
    const items = [item('85', 'door'), item('135', 'door', {}, 'second'), item('85', 'door'), item('50', 'steps')];
    const day = timetable(items);
    expect(day.entries.map((entry) => entry.lensChange)).toEqual([false, false, false, true]);
    expect(day.entries.map((entry) => entry.walk)).toEqual([false, false, false, true]);
    expect(costWords(day)).toBe('1 lens change · 1 walk · 45 min');
    // With something else on the body at the start, the first is a change too.
    expect(timetable(items, new Map([['main', '50']])).lensChanges).toBe(2);
    expect(timetable(items, new Map([['main', null]])).lensChanges).toBe(2);
  });

  it('tells the time of what just follows, and how much too little there is before the next', () => {
    const day = timetable([
      item('85', 'door', { startsAt: '13:40', minutes: 15 }),
      item('85', 'door', { minutes: 10 }),
      item('50', 'steps', { startsAt: '14:00', minutes: 20 })
    ]);
    // 13:55 to 14:05, a minute for the lens, four for the walk: ten past two, ten minutes late.
    expect(day.entries.map((entry) => entry.startsAt)).toEqual([820, 835, 840]);
    expect(day.entries.map((entry) => entry.clashMinutes)).toEqual([0, 0, 10]);
    expect(clashWords(first(day.entries[2]))).toBe('10 min too tight');
    expect(dayTitle(day)).toBe('3 setups, 13:40–14:20');
    expect(day.clashes).toBe(1);
  });

  it('goes on past midnight, and says that a morning cannot follow an afternoon', () => {
    const night = timetable([
      item('85', 'hall', { startsAt: '23:40', minutes: 20 }),
      item('85', 'hall', { startsAt: '00:30' })
    ]);
    expect(night.entries[1]).toMatchObject({ startsAt: 1470, clashMinutes: 0 });
    expect(dayTitle(night)).toBe('2 setups, 23:40–00:40');
    const wrong = timetable([item('85', 'hall', { startsAt: '14:00' }), item('85', 'hall', { startsAt: '08:00' })]);
    expect(wrong.entries[1]?.clashMinutes).toBe(370);
  });

  it('says how the clock stands', () => {
    const [entry] = timetable([item('85', 'door', { startsAt: '14:35', minutes: 10 })]).entries;
    expect(clockAgainstPlan(entry, 14 * 60 + 39.5, false)).toBe('6 min left');
    expect(clockAgainstPlan(entry, 14 * 60 + 15, false)).toBe('in 20 min');
    expect(clockAgainstPlan(entry, 14 * 60 + 50, false)).toBe('5 min over');
    expect(clockAgainstPlan(entry, 14 * 60 + 50, true)).toBe('');
    expect(clockAgainstPlan(timetable([item('85', 'door')]).entries[0], 0, false)).toBe('');
  });

  it('reads a time as it is typed', () => {
    const typed = ['14:35', '1435', '14.35', '14h35', '9', '09:05', '2.30 pm', '2:30p', '12 am', '12:15 p.m.', ' '];
    const read = typed.map(readClock).map((result) => (result.ok ? result.value : result.message));
    expect(read).toEqual([
      '14:35',
      '14:35',
      '14:35',
      '14:35',
      '09:00',
      '09:05',
      '14:30',
      '14:30',
      '00:00',
      '12:15',
      null
    ]);
    for (const wrong of ['25:00', '12:60', '13 pm', '0 am', 'noon', '-1', '123456', '12:5'])
      expect(readClock(wrong), wrong).toEqual({ ok: false, message: 'Type a time such as 14:35.' });
  });

  it('draws a ribbon for what stays the same', () => {
    expect(stretches(['a', 'a', 'b', 'a'])).toEqual([
      { from: 0, to: 1, key: 'a' },
      { from: 2, to: 2, key: 'b' },
      { from: 3, to: 3, key: 'a' }
    ]);
    expect(numbersWords([4, 0, 1, 2, 7, 8])).toBe('1–3, 5, 8, 9');
  });
});

describe('an order that costs less', () => {
  it('swaps two, and their times stay with the day', () => {
    const items = [
      item('85', 'door', { startsAt: '14:00' }),
      item('50', 'door', { startsAt: '14:10' }),
      item('85', 'door', { startsAt: '14:20' }),
      item('50', 'door', { startsAt: '14:30' })
    ];
    const better = betterOrder(items);
    expect(better).toMatchObject({ kind: 'swap', lensChangesFewer: 2, walksFewer: 0 });
    expect(betterOrderWords(first(better))).toMatch(/^Swap \d and \d: 2 lens changes fewer$/);
    expect(better?.items.map((each) => each.schedule.startsAt)).toEqual(['14:00', '14:10', '14:20', '14:30']);
    expect(timetable(better?.items ?? []).lensChanges).toBe(1);
  });

  it('touches no fixed time and makes no new clash', () => {
    const items = [
      item('85', 'door', { startsAt: '14:00', fixed: true }),
      item('50', 'door', { startsAt: '14:10', fixed: true }),
      item('85', 'door', { startsAt: '14:20', fixed: true })
    ];
    expect(betterOrder(items)).toBeNull();
    expect(
      withTimes(
        items,
        [1, 0, 2].map((index) => first(items[index]))
      )
    ).toBeNull();
  });

  it('never makes a day worse, whatever the day (random)', () => {
    const schedule = fc.record({
      minutes: fc.integer({ min: 1, max: 40 }),
      fixed: fc.boolean(),
      hour: fc.integer({ min: 8, max: 20 })
    });
    const items = fc.array(
      fc.tuple(
        fc.constantFrom('50', '85', '135'),
        fc.constantFrom('door', 'steps'),
        fc.constantFrom('main', 'second'),
        schedule
      ),
      { minLength: 3, maxLength: 8 }
    );
    fc.assert(
      fc.property(items, (drawn) => {
        const day = drawn.map(([lens, place, body, { minutes, fixed, hour }]) =>
          item(
            lens,
            place,
            { minutes, ...(fixed ? { fixed, startsAt: `${String(hour).padStart(2, '0')}:00` } : {}) },
            body
          )
        );
        const better = betterOrder(day);
        if (!better) return;
        const [now, then] = [timetable(day), timetable(better.items)];
        expect(then.clashes).toBeLessThanOrEqual(now.clashes);
        expect(better.items.map((each) => each.id).sort()).toEqual(day.map((each) => each.id).sort());
        day.forEach((each, index) => {
          if (each.schedule.fixed) expect(better.items[index]?.id).toBe(each.id);
        });
        expect([now.lensChanges - then.lensChanges, now.walks - then.walks]).toEqual([
          better.lensChangesFewer,
          better.walksFewer
        ]);
      }),
      { numRuns: runs(60) }
    );
  });
});

describe('the smallest bag', () => {
  const demand = (setupId: string, ...needs: readonly (readonly [string, number])[]): Demand => ({
    setupId,
    options: needs.map(([list, rather]) => ({ needs: list.split(' '), rather }))
  });

  it('takes the lens that serves two over one for each, and says what only it can do', () => {
    const demands = [
      demand('a', ['main 85', 0], ['main zoom', 1]),
      demand('b', ['main 135', 0], ['main zoom', 1]),
      demand('c', ['main 50', 0])
    ];
    const bag = smallestBag(demands);
    expect([...bag.items].sort()).toEqual(['50', 'main', 'zoom']);
    expect(bag.exact).toBe(true);
    expect(forcedBy(demands, '50')).toEqual(['c']);
    expect(forcedBy(demands, 'zoom')).toEqual([]);
    expect(fallWithout(demands, bag.items, 'zoom')).toEqual(['a', 'b']);
    expect(wayWith(first(demands[0]), new Set(bag.items))?.needs).toEqual(['main', 'zoom']);
  });

  it('of equals takes what is planned, and leaves out what nothing can take', () => {
    const demands = [demand('a', ['main zoom', 1], ['main 85', 0]), demand('nothing')];
    expect([...smallestBag(demands).items].sort()).toEqual(['85', 'main']);
    expect(smallestBag([]).items).toEqual([]);
  });

  it('is as small as trying every bag finds (random)', () => {
    const items = ['b1', 'b2', 'l1', 'l2', 'l3', 'l4', 'l5'];
    const option = fc.record({
      needs: fc.subarray(items, { minLength: 1, maxLength: 3 }),
      rather: fc.integer({ min: 0, max: 4 })
    });
    const all = fc.array(fc.array(option, { minLength: 1, maxLength: 4 }), { minLength: 1, maxLength: 6 });
    fc.assert(
      fc.property(all, (drawn) => {
        const demands = drawn.map((options, index) => ({ setupId: `s${index}`, options }));
        let [fewest, rather] = [Infinity, Infinity];
        for (let mask = 0; mask < 1 << items.length; mask++) {
          const bag = new Set(items.filter((_, index) => mask & (1 << index)));
          const ways = demands.map((each) => wayWith(each, bag));
          if (ways.some((way) => !way) || bag.size > fewest) continue;
          const sum = ways.reduce((total, way) => total + (way?.rather ?? 0), 0);
          if (bag.size < fewest || sum < rather) [fewest, rather] = [bag.size, sum];
        }
        const found = smallestBag(demands);
        const sum = [...found.ways.values()].reduce((total, way) => total + way.rather, 0);
        expect([found.items.length, sum]).toEqual([fewest, rather]);
      }),
      { numRuns: runs(200) }
    );
  });
});

describe('the people of a day', () => {
  const { people, setups } = demoParts(demoJobs()[0]);

  it('are counted by setup and by role', () => {
    const ines = dayCast(people, setups).find(({ person }) => person.name === 'Ines');
    expect(ines?.setups.length).toBeGreaterThan(5);
    expect(dayCast([{ ...first(people[0]), id: 'nobody' }], setups)[0]?.setups).toEqual([]);
    expect(rolesOf(people)).toContainEqual({ role: 'her family', count: 4 });
  });

  it('make groups: both families, without partners', () => {
    const both = withRoles(people, ['her family', 'his family']).map((person) => person.name);
    expect(both).toHaveLength(8);
    expect(both).toContain('Petra');
    expect(both).not.toContain('Ludmila');
  });
});
