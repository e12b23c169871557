/** What leaves the open job as a list, cards or a calendar: in the order of the day, without what is not to leave. */
import { planSetup } from '$core/call/planSetup';
import type { CalendarEvent } from '$core/formats/calendar';
import { hideNames, withoutNames } from '$core/setup/withoutNames';
import { compensationOf } from '$core/technique/metering';
import { cardWords, type CardOf } from '$core/words/paperCard';
import { pictureOf } from '$lib/finder/smallPicture';
import type { App } from '$lib/state/app.svelte';
import type { Leaving } from '$lib/state/job/leaving';
import type { PaperCard } from '../../paper/cards';

/** What the job is called there. */
export function exportTitle(app: App, { names }: Leaving): string {
  const title = app.open.job?.name ?? 'Focalis';
  if (names) return title;
  return hideNames(
    title,
    app.open.people.map((person) => person.name)
  );
}

/** Every setup with its call, or those of some ids. */
export function cardsOf(app: App, { names, places }: Leaving, ids?: readonly string[]): CardOf[] {
  const known = app.open.people.map((person) => person.name);
  return app.day.table.entries.flatMap((entry, index): CardOf[] => {
    const row = app.open.row(entry.item.id);
    if (!row || (ids && !ids.includes(row.id))) return [];
    const setup = names ? row.setup : withoutNames(row.setup, known);
    const result = names ? app.open.planned(setup).plan : planSetup(app.open.input(setup));
    return [
      {
        setup,
        result,
        compensation: compensationOf(app.open.input(setup), result),
        kit: app.open.kit,
        unit: app.settings.now.unit,
        number: index + 1,
        placeName: places ? (app.open.places.find((place) => place.id === entry.item.placeId)?.name ?? '') : '',
        startsAt: entry.startsAt
      }
    ];
  });
}

/** What is written of each setup, with its small picture and what its Floor shows. */
export function paperCards(app: App, leaving: Leaving, ids?: readonly string[]): Promise<PaperCard[]> {
  return Promise.all(
    cardsOf(app, leaving, ids).map(async (of): Promise<PaperCard> => {
      const { setup, result, unit } = of;
      const own = app.open.row(setup.id)?.setup ?? setup;
      const { body, lens, plan } = app.open.planned(own);
      if (result.kind !== 'plan' || plan.kind !== 'plan' || !body || !lens)
        return { words: cardWords(of), floor: null, picture: null };
      return {
        words: cardWords(of),
        floor: { setup, plan: result, body, unit },
        picture: await pictureOf(app.thumbnails, setup.id, { setup: own, plan, body, lens })
      };
    })
  );
}

/** An event for each setup that has a time. */
export function calendarEvents(app: App, leaving: Leaving): CalendarEvent[] {
  return cardsOf(app, leaving).flatMap((of): CalendarEvent[] => {
    const { setup, startsAt, number, placeName } = of;
    if (startsAt === null) return [];
    const { stop, target, lines, notes } = cardWords(of);
    const call = [stop, target].filter((part) => part !== '').join(' · ');
    const facts = lines.map(({ name, value, more }) => [name, value, more].filter((part) => part !== '').join(' '));
    return [
      {
        id: setup.id,
        name: `${number}. ${setup.name}`,
        place: placeName,
        description: [call, ...facts, notes].filter((part) => part !== '').join('\n'),
        startsAt,
        minutes: setup.schedule.minutes
      }
    ];
  });
}
