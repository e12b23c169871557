/** Text on a page in several fonts: each character in the first font that has it. */
import fontkit from '@pdf-lib/fontkit';
import type { PDFDocument, PDFFont, PDFPage } from 'pdf-lib';
import { rgb, type Color } from 'pdf-lib';

export const fontStyles = ['text', 'bold', 'narrow'] as const;
export type FontStyle = (typeof fontStyles)[number];

/** Font files of each style, the preferred ones first. */
export type FontFiles = Readonly<Record<FontStyle, readonly Uint8Array[]>>;

interface Face {
  readonly covers: ReadonlySet<number>;
  readonly font: PDFFont;
}

interface Run {
  readonly font: PDFFont;
  readonly text: string;
}

export class Fonts {
  readonly #faces: Readonly<Record<FontStyle, readonly Face[]>>;

  private constructor(faces: Readonly<Record<FontStyle, readonly Face[]>>) {
    this.#faces = faces;
  }

  /** Only the fonts that `text` needs become part of the document. */
  static async embed(document: PDFDocument, files: FontFiles, text: string): Promise<Fonts> {
    document.registerFontkit(fontkit);
    const wanted = new Set([...text].map((character) => character.codePointAt(0) ?? 0));
    const facesOf = async (style: FontStyle): Promise<Face[]> => {
      const faces: Face[] = [];
      const left = new Set(wanted);
      for (const [index, bytes] of files[style].entries()) {
        if (left.size === 0) break;
        const covers = new Set(fontkit.create(bytes).characterSet);
        const serves = [...left].filter((code) => covers.has(code));
        if (index > 0 && serves.length === 0) continue;
        for (const code of serves) left.delete(code);
        faces.push({ covers, font: await document.embedFont(bytes, { subset: true }) });
      }
      return faces;
    };
    return new Fonts({ text: await facesOf('text'), bold: await facesOf('bold'), narrow: await facesOf('narrow') });
  }

  #runs(text: string, style: FontStyle): Run[] {
    const [usual] = this.#faces[style];
    if (!usual) throw new Error(`No font for ${style}.`);
    const runs: { font: PDFFont; text: string }[] = [];
    for (const character of text) {
      const code = character.codePointAt(0) ?? 0;
      const face = this.#faces[style].find(({ covers }) => covers.has(code));
      // What no font has is shown as a gap one notices.
      const shown = face ? character : '?';
      const { font } = face ?? usual;
      const last = runs[runs.length - 1];
      if (last?.font === font) last.text += shown;
      else runs.push({ font, text: shown });
    }
    return runs;
  }

  width(text: string, style: FontStyle, size: number): number {
    return this.#runs(text, style).reduce((sum, run) => sum + run.font.widthOfTextAtSize(run.text, size), 0);
  }

  /** Lines no wider than `room`; words longer than a line are broken. */
  wrapped(text: string, style: FontStyle, size: number, room: number): string[] {
    const lines: string[] = [];
    for (const paragraph of text.split('\n')) {
      let line = '';
      for (const word of paragraph.split(/\s+/).filter(Boolean)) {
        const longer = line === '' ? word : `${line} ${word}`;
        if (this.width(longer, style, size) <= room) {
          line = longer;
          continue;
        }
        if (line !== '') lines.push(line);
        line = '';
        for (const character of word) {
          if (line !== '' && this.width(line + character, style, size) > room) {
            lines.push(line);
            line = '';
          }
          line += character;
        }
      }
      lines.push(line);
    }
    return lines;
  }

  /** As much of a line as fits, with an ellipsis where some is left out. */
  cut(text: string, style: FontStyle, size: number, room: number): string {
    if (this.width(text, style, size) <= room) return text;
    const characters = [...text];
    while (characters.length > 0 && this.width(`${characters.join('')}…`, style, size) > room) characters.pop();
    return `${characters.join('').trimEnd()}…`;
  }

  draw(page: PDFPage, text: string, at: TextAt): void {
    const { style, size, color, align = 'left' } = at;
    const wide = align === 'left' ? 0 : this.width(text, style, size);
    let x = at.x - (align === 'right' ? wide : align === 'middle' ? wide / 2 : 0);
    for (const run of this.#runs(text, style)) {
      page.drawText(run.text, { x, y: at.y, size, font: run.font, color: color ?? rgb(0, 0, 0) });
      x += run.font.widthOfTextAtSize(run.text, size);
    }
  }
}

interface TextAt {
  readonly x: number;
  /** Of the base line, from the bottom of the page. */
  readonly y: number;
  readonly style: FontStyle;
  readonly size: number;
  readonly color?: Color;
  readonly align?: 'left' | 'middle' | 'right';
}
