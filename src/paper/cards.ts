/** Field cards as PDF: one, two or four to a page. */
import { PDFDocument, type PDFImage, type PDFPage } from 'pdf-lib';
import type { DrawingBox } from '../core/paper/primitives';
import type { CardWords } from '../core/words/paperCard';
import { floorDrawing, type FloorShown } from '../drawing/drawing';
import { colorOf, drawInto } from './drawn';
import { Fonts, type FontFiles, type FontStyle } from './fonts';
import { paperSizes, type Paper } from './sizes';

export interface PaperCard {
  readonly words: CardWords;
  readonly floor: FloorShown | null;
  /** JPEG. */
  readonly picture: Uint8Array | null;
}

export type PerPage = 1 | 2 | 4;

export interface CardsAsked {
  readonly title: string;
  readonly cards: readonly PaperCard[];
  readonly paper: Paper;
  readonly perPage: PerPage;
}

/** Points of a card of 105 mm width; larger cards are the same, larger. */
const cardWidth = (105 / 25.4) * 72;
const margin = 17;

/** @returns the bytes of the document */
export async function cardsPdf(
  { title, cards, paper, perPage }: CardsAsked,
  files: FontFiles,
  onProgress: (share: number) => void = () => undefined
): Promise<Uint8Array> {
  const document = await PDFDocument.create();
  document.setTitle(title);
  document.setProducer('Focalis');
  const fonts = await Fonts.embed(document, files, textOf(cards));
  const { width, height } = paperSizes[paper];
  const boxes = placesOn(width, height, perPage);
  for (const [index, card] of cards.entries()) {
    onProgress(index / cards.length);
    const place = index % perPage;
    const page = place === 0 ? document.addPage([width, height]) : document.getPage(document.getPageCount() - 1);
    const box = boxes[place];
    if (!box) continue;
    const image = card.picture ? await document.embedJpg(card.picture) : null;
    new Card(page, fonts, box).draw(card, image);
    if (place === 0 && perPage > 1) cutLines(page, width, height, perPage);
  }
  return document.save();
}

/** Everything that is going to be written. */
const textOf = (cards: readonly PaperCard[]): string => {
  const names = cards.flatMap(({ floor }) =>
    floor ? [...floor.setup.people, ...floor.setup.things, ...floor.setup.backgrounds].map(({ name }) => name) : []
  );
  return `${JSON.stringify(cards.map(({ words }) => words))}${names.join('')}0123456789 m.…?·–→∞′″ sharp`;
};

function placesOn(width: number, height: number, perPage: PerPage): DrawingBox[] {
  const columns = perPage === 4 ? 2 : 1;
  const rows = perPage === 1 ? 1 : 2;
  const [w, h] = [width / columns, height / rows];
  return Array.from({ length: perPage }, (_, index) => ({
    x: (index % columns) * w,
    y: height - (Math.floor(index / columns) + 1) * h,
    width: w,
    height: h
  }));
}

function cutLines(page: PDFPage, width: number, height: number, perPage: PerPage): void {
  const line = { color: colorOf('line'), thickness: 0.5, dashArray: [2, 4] };
  page.drawLine({ start: { x: 0, y: height / 2 }, end: { x: width, y: height / 2 }, ...line });
  if (perPage === 4) page.drawLine({ start: { x: width / 2, y: 0 }, end: { x: width / 2, y: height }, ...line });
}

/** Points of a card of 105 mm for a px of the Floor. */
const pointsPerPx = 0.68;

/** Lower than this share of its width, a place has no room for two above each other. */
const lowBox = 0.9;

/** How much of the width an upright picture takes so that it fills the height; the Floor keeps some. */
const besideShare = (image: PDFImage, box: DrawingBox): number =>
  Math.min(0.5, (image.width / image.height) * (box.height / box.width));

/** One card; it is written from the top down. */
class Card {
  readonly #page: PDFPage;
  readonly #fonts: Fonts;
  readonly #box: DrawingBox;
  /** Points for a point of the card of 105 mm. */
  readonly #scale: number;
  readonly #wide: boolean;
  #y = 0;

  constructor(page: PDFPage, fonts: Fonts, box: DrawingBox) {
    this.#page = page;
    this.#fonts = fonts;
    this.#box = box;
    this.#wide = box.width > box.height;
    this.#scale = (this.#wide ? box.width / 1.75 : box.width) / cardWidth;
  }

  draw({ words, floor }: Pick<PaperCard, 'words' | 'floor'>, image: PDFImage | null): void {
    const s = this.#scale;
    const box = this.#box;
    const [left, right] = [box.x + margin * s, box.x + box.width - margin * s];
    this.#y = box.y + box.height - margin * s;
    // Beside each other where there is the width for it: words left, pictures right.
    const gap = 12 * s;
    const column = this.#wide ? (right - left - gap) * 0.54 : right - left;
    this.#header(words, left, right);
    const under = this.#y;
    this.#call(words, left, column);
    this.#facts(words, left, column);
    this.#sentences(words, left, column, box.y + margin * s);
    const foot = box.y + margin * s;
    const pictures = this.#wide
      ? { x: left + column + gap, y: foot, width: right - left - column - gap, height: under - foot - 8 * s }
      : { x: left, y: foot, width: right - left, height: this.#y - foot - 6 * s };
    this.#pictures(image, floor, pictures);
  }

  #header({ number, name, when }: CardWords, left: number, right: number): void {
    const s = this.#scale;
    const size = 12 * s;
    this.#y -= size;
    const aside = this.#fonts.cut(when, 'text', 8.5 * s, (right - left) * 0.48);
    const wide = this.#fonts.width(aside, 'text', 8.5 * s);
    const title = this.#fonts.cut(`${number}. ${name}`, 'narrow', size, right - left - wide - 8 * s);
    this.#text(title, left, 'narrow', size);
    this.#fonts.draw(this.#page, aside, {
      x: right,
      y: this.#y,
      style: 'text',
      size: 8.5 * s,
      color: colorOf('soft'),
      align: 'right'
    });
    this.#y -= 5 * s;
    this.#rule(left, right, 1.4 * s, 'ink');
  }

  #call({ stop, target }: CardWords, left: number, width: number): void {
    const s = this.#scale;
    if (stop !== '') {
      const size = 52 * s;
      this.#y -= size * 0.86;
      this.#text(stop, left, 'narrow', size);
      this.#y -= 6 * s;
    }
    for (const line of this.#fonts.wrapped(target, 'narrow', 18 * s, width)) {
      this.#y -= 19 * s;
      this.#text(line, left, 'narrow', 18 * s);
    }
    this.#y -= 8 * s;
  }

  #facts({ lines }: CardWords, left: number, width: number): void {
    const s = this.#scale;
    if (lines.length === 0) return;
    this.#rule(left, left + width, 1 * s, 'ink');
    for (const { name, value, more } of lines) {
      this.#y -= 13 * s;
      this.#text(name, left, 'text', 8.5 * s, 'soft');
      this.#text(value, left + 36 * s, 'narrow', 12.5 * s);
      const taken = 36 * s + this.#fonts.width(value, 'narrow', 12.5 * s) + 6 * s;
      this.#fonts.draw(this.#page, this.#fonts.cut(more, 'text', 8.5 * s, width - taken), {
        x: left + width,
        y: this.#y,
        style: 'text',
        size: 8.5 * s,
        color: colorOf('soft'),
        align: 'right'
      });
      this.#y -= 4.5 * s;
      this.#rule(left, left + width, 0.5 * s, 'line');
    }
  }

  /** As many lines as there is room for; pictures keep a part of an upright card. */
  #sentences({ warnings, sentences, notes }: CardWords, left: number, width: number, foot: number): void {
    const s = this.#scale;
    const size = 9 * s;
    const leading = size * 1.28;
    const least = foot + (this.#wide ? 0 : this.#box.height * 0.3);
    this.#y -= 4 * s;
    const parts: readonly (readonly [string, FontStyle])[] = [
      ...warnings.map((text) => [text, 'bold'] as const),
      ...sentences.map((text) => [text, 'text'] as const),
      ...(notes === '' ? [] : [[notes, 'text'] as const])
    ];
    for (const [text, style] of parts) {
      for (const line of this.#fonts.wrapped(text, style, size, width)) {
        if (this.#y - leading < least) return;
        this.#y -= leading;
        this.#text(line, left, style, size);
      }
      this.#y -= 2 * s;
    }
  }

  /** The picture and the Floor: beside each other where the picture is upright or there is little height, else one above the other. */
  #pictures(image: PDFImage | null, floor: FloorShown | null, box: DrawingBox): void {
    const s = this.#scale;
    if (box.height < 30 * s) return;
    const gap = 8 * s;
    const upright = image !== null && image.height > image.width;
    const beside = image !== null && !this.#wide && (upright || box.height < box.width * lowBox);
    const share = floor === null ? 1 : beside ? besideShare(image, box) : 0.52;
    const first: DrawingBox = beside
      ? { ...box, width: box.width * share - gap / 2 }
      : { ...box, y: box.y + box.height * (1 - share) + gap / 2, height: box.height * share - gap / 2 };
    if (image) {
      const scale = Math.min(first.width / image.width, first.height / image.height);
      const [width, height] = [image.width * scale, image.height * scale];
      this.#page.drawImage(image, { x: first.x, y: first.y + first.height - height, width, height });
    }
    if (!floor) return;
    const rest: DrawingBox =
      image === null
        ? box
        : beside
          ? { ...box, x: first.x + first.width + gap, width: box.width - first.width - gap }
          : { ...box, height: box.height * (1 - share) - gap / 2 };
    // Not taller than it is wide: there is nothing more to show.
    const height = Math.min(rest.height, rest.width * 0.8);
    const px = 1 / (pointsPerPx * s);
    const drawing = floorDrawing(floor, rest.width * px, height * px);
    drawInto(this.#page, this.#fonts, drawing, { ...rest, y: rest.y + rest.height - height, height });
  }

  #text(text: string, x: number, style: FontStyle, size: number, tone: 'ink' | 'soft' = 'ink'): void {
    this.#fonts.draw(this.#page, text, { x, y: this.#y, style, size, color: colorOf(tone) });
  }

  #rule(from: number, to: number, thickness: number, tone: 'ink' | 'line'): void {
    const at = { color: colorOf(tone), thickness };
    this.#page.drawLine({ start: { x: from, y: this.#y }, end: { x: to, y: this.#y }, ...at });
  }
}
