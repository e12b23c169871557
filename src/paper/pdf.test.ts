import { execFileSync } from 'node:child_process';
import { mkdtempSync, readFileSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { PDFDocument } from 'pdf-lib';
import { PNG } from 'pngjs';
import { describe, expect, it } from 'vitest';
import { planSetup } from '../core/call/planSetup';
import { defaultHabits } from '../core/habits/habits';
import { builtInKit } from '../core/kit/builtInKit';
import { bodyOf } from '../core/kit/find';
import type { Setup } from '../core/setup/schema';
import { withoutNames } from '../core/setup/withoutNames';
import { demoSetup } from '../core/testing/demo';
import { cardWords, listLine, type CardOf } from '../core/words/paperCard';
import { cardsPdf, type PaperCard } from './cards';
import { fontFiles } from './fontFiles';
import type { FontFiles } from './fonts';
import { listPdf } from './list';
import { picturePdf } from './picture';

const modules = join(import.meta.dirname, '../../node_modules');
const bytesOf = (file: string) => new Uint8Array(readFileSync(join(modules, file)));
const files: FontFiles = {
  text: fontFiles.text.map(bytesOf),
  bold: fontFiles.bold.map(bytesOf),
  narrow: fontFiles.narrow.map(bytesOf)
};
/** What `pdftotext` of Poppler, another reader, finds in a document. */
function textOf(pdf: Uint8Array, ...options: string[]): string {
  const file = join(mkdtempSync(join(tmpdir(), 'focalis-')), 'a.pdf');
  writeFileSync(file, pdf);
  if (process.env['KEEP_PDF']) writeFileSync(`${process.env['KEEP_PDF']}${kept++}.pdf`, pdf);
  return execFileSync('pdftotext', [...options, file, '-'], { encoding: 'utf8' });
}
let kept = 0;
/** A grey picture of one pixel. */
const jpeg = new Uint8Array(
  Buffer.from(
    '/9j/4AAQSkZJRgABAQEASABIAAD/2wBDAP//////////////////////////////////////////////////////////////////////////////////////wgALCAABAAEBAREA/8QAFBABAAAAAAAAAAAAAAAAAAAAAP/aAAgBAQABPxA=',
    'base64'
  )
);

function asked(setup: Setup, number = 1, changes: Partial<CardOf> = {}): CardOf {
  const result = planSetup({ setup, kit: builtInKit, stopStep: 'third', habits: defaultHabits });
  return {
    setup,
    result,
    compensation: 0,
    kit: builtInKit,
    unit: 'metric',
    number,
    placeName: 'West door',
    startsAt: 875,
    ...changes
  };
}
function cardOf(setup: Setup, number = 1, picture: Uint8Array | null = null): PaperCard {
  const of = asked(setup, number);
  const body = bodyOf(builtInKit, setup.camera);
  const { result } = of;
  const floor = result.kind === 'plan' && body ? { setup, plan: result, body, unit: 'metric' as const } : null;
  return { words: cardWords(of), floor, picture };
}

const door = demoSetup('West door');
const family = demoSetup('Family on the steps');

describe('field cards as PDF', () => {
  it('hold the call, the figures and the Floor as text one can search', async () => {
    const card = cardOf(door, 1, jpeg);
    const pdf = await cardsPdf({ title: 'A wedding', cards: [card], paper: 'A4', perPage: 1 }, files);
    const text = textOf(pdf);
    for (const part of [`1. ${door.name}`, card.words.stop, '14:35, 15 min, West door']) expect(text).toContain(part);
    expect(text.replaceAll(/\s+/g, ' ')).toContain(card.words.target);
    for (const { name, value } of card.words.lines) {
      expect(text).toContain(name);
      expect(text).toContain(value);
    }
    // The scale of the Floor.
    expect(text).toMatch(/\d m\b/);
    expect(text).toMatch(/sharp .+ – /);
  });

  it('stand one, two or four to a page, on the paper asked for', async () => {
    const cards = [door, family, door, family, door].map((setup, index) => cardOf(setup, index + 1));
    const pagesOf = async (perPage: 1 | 2 | 4, paper: 'A4' | 'Letter') => {
      const pdf = await PDFDocument.load(await cardsPdf({ title: 'T', cards, paper, perPage }, files));
      return pdf.getPages().map((page) => page.getSize());
    };
    expect(await pagesOf(1, 'A4')).toHaveLength(5);
    expect(await pagesOf(2, 'A4')).toHaveLength(3);
    const letter = await pagesOf(4, 'Letter');
    expect(letter).toEqual([
      { width: 612, height: 792 },
      { width: 612, height: 792 }
    ]);
    const text = textOf(await cardsPdf({ title: 'T', cards, paper: 'A4', perPage: 2 }, files));
    for (const { words } of cards) expect(text).toContain(`${words.number}. ${words.name}`);
  });

  it('write names of other scripts, and mark what no font has', async () => {
    const renamed = (name: string): Setup => ({
      ...door,
      name: `Ełżbieta Ωμέγα Дарья 愛`,
      people: door.people.map((person, index) => (index === 0 ? { ...person, name } : person))
    });
    const card = cardOf(renamed('Ελένη'));
    const text = textOf(await cardsPdf({ title: 'T', cards: [card], paper: 'A4', perPage: 4 }, files));
    expect(text).toContain('1. Ełżbieta Ωμέγα Дарья ?');
    expect(text).toContain('Ελένη');
  });

  it('say why there is no call, and never write outside the card', async () => {
    const none: Setup = { ...door, people: [], things: [] };
    const long: Setup = { ...family, name: 'A '.repeat(55).trim(), notes: 'Mind the step. '.repeat(120) };
    const cards = [cardOf(none), cardOf(long, 2), cardOf(door, 3), cardOf(door, 4)];
    const pdf = await cardsPdf({ title: 'T', cards, paper: 'A4', perPage: 4 }, files);
    const text = textOf(pdf);
    expect(cards[0]?.words.stop).toBe('');
    expect(text.replaceAll(/\s+/g, ' ')).toContain(cards[0]?.words.target);
    // Words of the second card stay in the right half of the upper half.
    const boxes = [
      ...textOf(pdf, '-bbox').matchAll(/xMin="([\d.]+)" yMin="([\d.]+)" xMax="([\d.]+)" yMax="([\d.]+)">step\./g)
    ];
    expect(boxes.length).toBeGreaterThan(1);
    for (const [, xMin, , xMax, yMax] of boxes) {
      expect(Number(xMin)).toBeGreaterThan(595 / 2);
      expect(Number(xMax)).toBeLessThan(595);
      expect(Number(yMax)).toBeLessThan(842 / 2);
    }
  });

  it('call nobody by name where names are not to leave', async () => {
    const open: Setup = { ...door, name: `${door.people[0]?.name ?? ''} at the door`, notes: '' };
    const hidden = withoutNames({ ...open, notes: `Ask ${door.people[0]?.name ?? ''}.` });
    const text = textOf(await cardsPdf({ title: 'T', cards: [cardOf(hidden)], paper: 'A4', perPage: 1 }, files));
    for (const { name } of door.people) expect(text).not.toContain(name);
    expect(text).toContain('someone at the door');
    expect(text.replaceAll(/\s+/g, ' ')).toContain('Ask someone.');
    expect(text).toContain('Person 1');
  });
});

describe('the shot list as PDF', () => {
  it('has a line for each setup over as many pages as it takes', async () => {
    const lines = Array.from({ length: 60 }, (_, index) => ({
      ...listLine(asked(index % 2 ? door : family, index + 1)),
      name: `Picture no. ${index + 1}`
    }));
    const pdf = await listPdf({ title: 'A wedding', under: 'sixty pictures', lines, paper: 'A4' }, files);
    const text = textOf(pdf, '-layout');
    for (const { name } of lines) expect(text).toContain(name);
    const document = await PDFDocument.load(pdf);
    expect(document.getPageCount()).toBe(3);
    expect(document.getTitle()).toBe('A wedding');
    expect(text).toContain('3 of 3');
    expect(text).toContain('f/');
  });

  it('of an empty day is one page', async () => {
    const pdf = await listPdf({ title: 'Nothing yet', under: '', lines: [], paper: 'Letter' }, files);
    expect(textOf(pdf)).toContain('Nothing yet');
  });
});

describe('a picture on a page', () => {
  it('lies where it is wider than high, and fits', async () => {
    const png = new PNG({ width: 300, height: 120 });
    png.data.fill(200);
    const pdf = await picturePdf({ title: 'Stops', png: PNG.sync.write(png), paper: 'A4' });
    const [page] = (await PDFDocument.load(pdf)).getPages();
    expect(page?.getWidth()).toBeCloseTo(841.9, 0);
    expect(page?.getHeight()).toBeCloseTo(595.3, 0);
    await expect(picturePdf({ title: 'x', png: jpeg, paper: 'A4' })).rejects.toThrow();
  });
});
