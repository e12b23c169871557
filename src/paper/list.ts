/** The shot list as PDF: a line a setup, with a box to tick. */
import { PDFDocument, type PDFPage } from 'pdf-lib';
import type { ListLine } from '../core/words/paperCard';
import { colorOf } from './drawn';
import { Fonts, type FontFiles, type FontStyle } from './fonts';
import { paperSizes, type Paper } from './sizes';

export interface ListAsked {
  readonly title: string;
  /** "Saturday 14 June 2026 · eight pictures": under the title. */
  readonly under: string;
  readonly lines: readonly ListLine[];
  readonly paper: Paper;
}

const margin = 40;
const rowHeight = 33;
const textSize = 9.5;
const smallSize = 8;
const heads = 16;

/** @returns the bytes of the document */
export async function listPdf({ title, under, lines, paper }: ListAsked, files: FontFiles): Promise<Uint8Array> {
  const document = await PDFDocument.create();
  document.setTitle(title);
  document.setProducer('Focalis');
  const known = `${title}${under}${JSON.stringify(lines)}Time Setup Call and lens Place 0123456789 of if time min…?`;
  const fonts = await Fonts.embed(document, files, known);
  const { width, height } = paperSizes[paper];
  const titleHeight = 44;
  const firstRows = Math.floor((height - 2 * margin - titleHeight - heads - 16) / rowHeight);
  const otherRows = Math.floor((height - 2 * margin - heads - 16) / rowHeight);
  const pages = Math.max(1, 1 + Math.ceil((lines.length - firstRows) / otherRows));
  let next = 0;
  for (let number = 1; number <= pages; number++) {
    const page = document.addPage([width, height]);
    let y = height - margin;
    if (number === 1) {
      fonts.draw(page, fonts.cut(title, 'narrow', 20, width - 2 * margin), {
        x: margin,
        y: y - 18,
        style: 'narrow',
        size: 20
      });
      fonts.draw(page, under, { x: margin, y: y - 33, style: 'text', size: textSize, color: colorOf('soft') });
      y -= titleHeight;
    }
    const writer = new Rows(page, fonts, width);
    writer.head(y);
    y -= heads;
    const rows = number === 1 ? firstRows : otherRows;
    for (const line of lines.slice(next, next + rows)) {
      writer.row(line, y);
      y -= rowHeight;
    }
    next += rows;
    const foot = { x: width - margin, y: margin - 14, style: 'text', size: smallSize, color: colorOf('soft') } as const;
    if (pages > 1) fonts.draw(page, `${number} of ${pages}`, { ...foot, align: 'right' });
  }
  return document.save();
}

class Rows {
  readonly #page: PDFPage;
  readonly #fonts: Fonts;
  readonly #width: number;
  /** Where each column begins, and how wide it is. */
  readonly #at: Readonly<Record<'box' | 'number' | 'time' | 'name' | 'call' | 'place', readonly [number, number]>>;

  constructor(page: PDFPage, fonts: Fonts, width: number) {
    this.#page = page;
    this.#fonts = fonts;
    this.#width = width;
    const left = margin;
    const free = width - 2 * margin - 84;
    this.#at = {
      box: [left, 14],
      number: [left + 18, 18],
      time: [left + 40, 44],
      name: [left + 84, free * 0.36 - 8],
      call: [left + 84 + free * 0.36, free * 0.42 - 8],
      place: [left + 84 + free * 0.78, free * 0.22]
    };
  }

  head(y: number): void {
    const names = { time: 'Time', name: 'Setup', call: 'Call and lens', place: 'Place' } as const;
    for (const [key, name] of Object.entries(names))
      this.#put(name, this.#at[key as keyof typeof names], y - 9, 'text', smallSize, true);
    this.#rule(y - heads + 2, 1.2, 'ink');
  }

  row(line: ListLine, y: number): void {
    const [first, second] = [y - 12, y - 24];
    const [x] = this.#at.box;
    this.#page.drawRectangle({ x, y: y - 15, width: 11, height: 11, borderColor: colorOf('ink'), borderWidth: 0.9 });
    if (line.done)
      this.#page.drawSvgPath('M2 6L5 9L10 2', { x, y: y - 4, borderColor: colorOf('ink'), borderWidth: 1.4 });
    this.#put(`${line.number}`, this.#at.number, first, 'text', textSize, true);
    this.#put(line.time, this.#at.time, first, 'text', textSize);
    this.#put(`${line.minutes} min`, this.#at.time, second, 'text', smallSize, true);
    this.#put(line.name, this.#at.name, first, 'bold', textSize);
    if (!line.mustHave) this.#put('if time', this.#at.name, second, 'text', smallSize, true);
    this.#put(line.call, this.#at.call, first, 'text', textSize);
    this.#put(line.lens, this.#at.call, second, 'text', smallSize, true);
    this.#put(line.place, this.#at.place, first, 'text', textSize);
    this.#rule(y - rowHeight + 2, 0.5, 'line');
  }

  #put(
    text: string,
    [x, room]: readonly [number, number],
    y: number,
    style: FontStyle,
    size: number,
    soft = false
  ): void {
    const shown = this.#fonts.cut(text, style, size, room);
    this.#fonts.draw(this.#page, shown, { x, y, style, size, color: colorOf(soft ? 'soft' : 'ink') });
  }

  #rule(y: number, thickness: number, tone: 'ink' | 'line'): void {
    const at = { thickness, color: colorOf(tone) };
    this.#page.drawLine({ start: { x: margin, y }, end: { x: this.#width - margin, y }, ...at });
  }
}
