/** The sheets of the Bench as PDF, every shape a vector. */
import { PDFDocument } from 'pdf-lib';
import { sheetPages, type SheetKind } from '../core/bench/pages';
import { sheetDrawing } from '../core/bench/sheetDrawing';
import { drawInto } from './drawn';
import { Fonts, type FontFiles } from './fonts';
import { pointsPerMm, type Paper } from './sizes';

export interface SheetsAsked {
  readonly kind: SheetKind;
  readonly paper: Paper;
}

/** @returns the bytes of the document */
export async function sheetsPdf({ kind, paper }: SheetsAsked, files: FontFiles): Promise<Uint8Array> {
  const pages = sheetPages(kind, paper);
  const document = await PDFDocument.create();
  document.setTitle(`Focalis: ${pages[0]?.title ?? ''}`);
  document.setProducer('Focalis');
  const fonts = await Fonts.embed(
    document,
    files,
    pages.flatMap(({ texts }) => texts.map(({ text }) => text)).join('')
  );
  for (const sheet of pages) {
    const [width, height] = [sheet.width * pointsPerMm, sheet.height * pointsPerMm];
    drawInto(document.addPage([width, height]), fonts, sheetDrawing(sheet), { x: 0, y: 0, width, height });
  }
  return document.save();
}
