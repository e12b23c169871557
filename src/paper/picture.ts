/** One picture on a page, as large as fits. */
import { PDFDocument } from 'pdf-lib';
import { paperSizes, type Paper } from './sizes';

export interface PicturePage {
  readonly title: string;
  /** A file of PNG. */
  readonly png: Uint8Array;
  readonly paper: Paper;
}

const margin = 28;

/** @returns the bytes of the document, its page lying where the picture is wider than high @throws when it is no PNG */
export async function picturePdf({ title, png, paper }: PicturePage): Promise<Uint8Array> {
  const document = await PDFDocument.create();
  document.setTitle(title);
  document.setProducer('Focalis');
  const image = await document.embedPng(png);
  const upright = paperSizes[paper];
  const { width, height } = image.width > image.height ? { width: upright.height, height: upright.width } : upright;
  const { width: wide, height: high } = image.scaleToFit(width - 2 * margin, height - 2 * margin);
  const page = document.addPage([width, height]);
  page.drawImage(image, { x: (width - wide) / 2, y: height - margin - high, width: wide, height: high });
  return document.save();
}
