/** The day as a calendar (RFC 5545): an event for each setup that has a time. */
import ical from 'ical-generator';

export interface CalendarEvent {
  /** Stays the same however often the calendar is written. */
  readonly id: string;
  readonly name: string;
  readonly place: string;
  readonly description: string;
  /** Minutes after the midnight the day begins with; a day past midnight goes on counting. */
  readonly startsAt: number;
  readonly minutes: number;
}

interface CalendarOf {
  readonly name: string;
  /** "2026-06-13". */
  readonly date: string;
  /** When it is written, ms since 1970. */
  readonly now: number;
  readonly events: readonly CalendarEvent[];
}

const minuteMs = 60_000;

/** Times are of no zone: whatever the clock says where the pictures are taken. */
export function writeCalendar({ name, date, now, events }: CalendarOf): string {
  const calendar = ical({ name, prodId: { company: 'Focalis', product: 'Focalis', language: 'EN' } });
  const midnight = Date.parse(`${date}T00:00:00Z`);
  for (const event of events) {
    const start = midnight + event.startsAt * minuteMs;
    calendar.createEvent({
      id: `${event.id}@focalis`,
      stamp: new Date(now),
      start: new Date(start),
      end: new Date(start + event.minutes * minuteMs),
      floating: true,
      summary: event.name,
      ...(event.place === '' ? {} : { location: event.place }),
      ...(event.description === '' ? {} : { description: event.description })
    });
  }
  return calendar.toString();
}
