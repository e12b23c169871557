import ICAL from 'ical.js';
import { describe, expect, it } from 'vitest';
import { writeCalendar, type CalendarEvent } from './calendar';

/** What another parser than the writer's reads. */
function read(text: string) {
  const component = new ICAL.Component(ICAL.parse(text) as unknown[]);
  return component.getAllSubcomponents('vevent').map((item) => new ICAL.Event(item));
}

const event = (changes: Partial<CalendarEvent> = {}): CalendarEvent => ({
  id: 's1',
  name: '1. West door',
  place: 'Fernhall, west side; steps',
  description: 'f/1.4 on Ines’s near eye\nStand 1.5 m',
  startsAt: 14 * 60 + 35,
  minutes: 15,
  ...changes
});
const written = (...events: CalendarEvent[]) =>
  writeCalendar({ name: 'A wedding', date: '2026-06-13', now: Date.UTC(2026, 5, 1, 8), events });

describe('the day as a calendar', () => {
  it('is read by another parser as it was written, commas, semicolons and lines and all', () => {
    const [first, ...rest] = read(written(event()));
    expect(rest).toEqual([]);
    expect(first?.summary).toBe('1. West door');
    expect(first?.location).toBe('Fernhall, west side; steps');
    expect(first?.description).toBe('f/1.4 on Ines’s near eye\nStand 1.5 m');
    expect(first?.uid).toBe('s1@focalis');
  });

  it('says the time on the clock there, of no zone, whatever zone it is written in', () => {
    const [first] = read(written(event()));
    expect(first?.startDate.toString()).toBe('2026-06-13T14:35:00');
    expect(first?.endDate.toString()).toBe('2026-06-13T14:50:00');
    expect(first?.startDate.zone?.tzid).toBe('floating');
  });

  it('goes on past midnight into the next day', () => {
    const [first] = read(written(event({ startsAt: 23 * 60 + 50, minutes: 20 })));
    expect(first?.endDate.toString()).toBe('2026-06-14T00:10:00');
    const [late] = read(written(event({ startsAt: 24 * 60 + 30 })));
    expect(late?.startDate.toString()).toBe('2026-06-14T00:30:00');
  });

  it('folds long lines, and ends each with CR LF (RFC 5545, 3.1)', () => {
    const text = written(event({ description: 'ä'.repeat(300) }));
    for (const line of text.split('\r\n')) expect(new TextEncoder().encode(line).length).toBeLessThanOrEqual(75);
    expect(text.replaceAll('\r\n', '')).not.toContain('\n');
    expect(read(text)[0]?.description).toBe('ä'.repeat(300));
  });

  it('without a time anywhere has no events', () => {
    expect(read(written())).toEqual([]);
  });
});
