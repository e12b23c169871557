/** Makes pages off the main thread, with the fonts that come with Focalis; nothing leaves. */
import { expose } from 'comlink';
import { cardsPdf, type CardsAsked } from '../paper/cards';
import { fontFiles } from '../paper/fontFiles';
import type { FontFiles } from '../paper/fonts';
import { listPdf, type ListAsked } from '../paper/list';
import { picturePdf, type PicturePage } from '../paper/picture';
import { sheetsPdf, type SheetsAsked } from '../paper/sheets';

let loaded: Promise<FontFiles> | undefined;

/** Where the font files are, by their name among the packages. */
type Addresses = Readonly<Record<string, string>>;

async function load(addresses: Addresses): Promise<FontFiles> {
  const bytes = async (file: string): Promise<Uint8Array> => {
    const address = addresses[`/node_modules/${file}`];
    if (address === undefined) throw new Error(`The font ${file} is missing.`);
    const response = await fetch(address);
    if (!response.ok) throw new Error('A font could not be fetched.');
    return new Uint8Array(await response.arrayBuffer());
  };
  const all = (files: readonly string[]) => Promise.all(files.map(bytes));
  const [text, bold, narrow] = await Promise.all([all(fontFiles.text), all(fontFiles.bold), all(fontFiles.narrow)]);
  return { text, bold, narrow };
}

/** A failure is not kept: the next one tries again. */
function fonts(addresses: Addresses): Promise<FontFiles> {
  loaded ??= load(addresses).catch((error: unknown) => {
    loaded = undefined;
    throw error;
  });
  return loaded;
}

const pdf = (bytes: Uint8Array) => new Blob([bytes as Uint8Array<ArrayBuffer>], { type: 'application/pdf' });

const paper = {
  async cards(asked: CardsAsked, from: Addresses, onProgress: (share: number) => void): Promise<Blob> {
    return pdf(await cardsPdf(asked, await fonts(from), onProgress));
  },
  async list(asked: ListAsked, from: Addresses): Promise<Blob> {
    return pdf(await listPdf(asked, await fonts(from)));
  },
  async picture(asked: PicturePage): Promise<Blob> {
    return pdf(await picturePdf(asked));
  },
  async sheets(asked: SheetsAsked, from: Addresses): Promise<Blob> {
    return pdf(await sheetsPdf(asked, await fonts(from)));
  }
};
export type PaperMaker = typeof paper;

expose(paper);
