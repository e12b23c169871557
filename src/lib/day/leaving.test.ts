/** Everything that leaves as a file, with one rule for names: they stay unless they are ticked. */
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { writeCalendar } from '$core/formats/calendar';
import { writeFramesCsv } from '$core/formats/framesCsv';
import { writeRecordCsv } from '$core/formats/recordCsv';
import { writeRecordFile } from '$core/formats/recordFile';
import { writeShotList } from '$core/formats/shotList';
import { sidecarOf, writeSidecar } from '$core/formats/sidecar';
import { drawingSvg } from '$core/paper/svg';
import { recordWithoutNames } from '$core/record/withoutNames';
import { testFace, testFrame } from '$core/testing/frames';
import { recordedFrame } from '$core/testing/recorded';
import { callSentence } from '$core/words/call';
import { listLine } from '$core/words/paperCard';
import { nameIn } from '$lib/frames/judging';
import { nameLeaving, setupLeaving, textLeaving } from '$lib/state/job/leaving';
import { openApp, weddingId, type OpenApp } from '$lib/testing/app';
import { floorDrawing } from '../../drawing/drawing';
import { calendarEvents, cardsOf, exportTitle } from './dayExport';

let opened: OpenApp;
beforeEach(async () => {
  opened = await openApp();
  await opened.app.openJob(weddingId);
});
afterEach(() => opened.close());

/** The text of every kind of file, by what it is called. */
function files(): Record<string, string> {
  const { app } = opened;
  const { leaving, unit } = app.settings.now;
  const cards = cardsOf(app, leaving);
  const rows = cards.map(({ result, ...card }) => ({ ...card, plan: result.kind === 'plan' ? result : null }));
  const planned = app.open.rows.flatMap(({ setup }) => {
    const { plan, body } = app.open.planned(setup);
    return plan.kind === 'plan' && body ? [{ ...setupLeaving(app, { setup, plan }), body }] : [];
  });
  const nameOf = nameLeaving(app, nameIn(app));
  const eye = { ok: true, discPx: 1, low: 0, high: 2, smear: null } as const;
  const [first] = app.open.people;
  const frame = testFrame({ faces: [testFace({ left: eye, right: eye }, { personId: first?.id ?? null })] });
  const measured = first ? `${nameOf(first.id)} sharp.` : '';
  const record = [recordedFrame('f', { setup: 'Ines at the door' })];
  const leavingRecord = leaving.names ? record : recordWithoutNames(record);
  return {
    title: exportTitle(app, leaving),
    list: cards.map((card) => JSON.stringify(listLine(card))).join('\n'),
    table: writeShotList(rows, app.open.kit, unit, leaving.names),
    // The sample's ids are words; all others are drawn by chance.
    calendar: writeCalendar({ name: 'x', date: '2027-06-12', now: 0, events: calendarEvents(app, leaving) }).replaceAll(
      /UID:.*/g,
      ''
    ),
    floor: planned
      .map(({ setup, plan, body }) => drawingSvg(floorDrawing({ setup, plan, body, unit }, 960, 480)))
      .join('\n'),
    finder: planned.map(({ setup, plan }) => `${setup.name} ${callSentence(plan, unit)}`).join('\n'),
    frames: writeFramesCsv([{ frame, setup: textLeaving(app, 'Ines at the door'), nameOf }]),
    sidecar: writeSidecar(sidecarOf(frame, measured)),
    record: writeRecordFile(leavingRecord),
    recordTable: writeRecordCsv(leavingRecord)
  };
}
const letters = /[\p{L}\p{N}]/u;
/** Names that stand in a text as words of their own. */
const namesIn = (text: string): string[] =>
  opened.app.open.people
    .map(({ name }) => name)
    .filter((name) =>
      [...text.matchAll(new RegExp(name.replaceAll(/[.*+?()]/g, String.raw`\$&`), 'gu'))].some(
        ({ index }) => !letters.test(text[index - 1] ?? '') && !letters.test(text[index + name.length] ?? '')
      )
    );

describe('what leaves as a file', () => {
  it('says nobody’s name and no place by itself', () => {
    for (const [kind, text] of Object.entries(files())) expect(namesIn(text), kind).toEqual([]);
    const { app } = opened;
    expect(
      cardsOf(app, app.settings.now.leaving)
        .map(({ placeName }) => placeName)
        .join('')
    ).toBe('');
    expect(
      calendarEvents(app, app.settings.now.leaving)
        .map(({ place }) => place)
        .join('')
    ).toBe('');
  });

  it('says them where they are ticked, in all of it', () => {
    opened.app.settings.set({ leaving: { names: true, places: true } });
    for (const [kind, text] of Object.entries(files()))
      if (kind !== 'title' && kind !== 'recordTable') expect(namesIn(text), kind).not.toEqual([]);
  });
});
