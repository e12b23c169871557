/** The way to the worker that makes pages. */
import { proxy } from 'comlink';
import { WorkerClient } from '../client';
import type { CardsAsked } from '../../paper/cards';
import type { ListAsked } from '../../paper/list';
import type { PicturePage } from '../../paper/picture';
import type { SheetsAsked } from '../../paper/sheets';
import type { PaperMaker } from '../paper.worker';

/** Asked for from here, they are among the files that are fetched beforehand; a worker's own are not. */
const addresses = {
  ...import.meta.glob<string>('/node_modules/@fontsource/archivo/files/archivo-latin*-{400,600}-normal.woff', {
    query: '?url',
    import: 'default',
    eager: true
  }),
  ...import.meta.glob<string>('/node_modules/@fontsource/archivo-narrow/files/archivo-narrow-latin*-700-normal.woff', {
    query: '?url',
    import: 'default',
    eager: true
  }),
  ...import.meta.glob<string>(
    '/node_modules/@fontsource/noto-sans/files/noto-sans-{greek,greek-ext,cyrillic,cyrillic-ext,vietnamese}-{400,600}-normal.woff',
    { query: '?url', import: 'default', eager: true }
  )
};

const maker = new WorkerClient<PaperMaker>(
  () => new Worker(new URL('../paper.worker.ts', import.meta.url), { type: 'module' })
);

/** Field cards as PDF. */
export const makeCards = (asked: CardsAsked, onProgress: (share: number) => void): Promise<Blob> =>
  maker.call((api, progress) => api.cards(asked, addresses, proxy(progress)), { onProgress });

/** The shot list as PDF. */
export const makeList = (asked: ListAsked): Promise<Blob> => maker.call((api) => api.list(asked, addresses));

/** Sheets of the Bench as PDF. */
export const makeSheets = (asked: SheetsAsked): Promise<Blob> => maker.call((api) => api.sheets(asked, addresses));

/** One picture as PDF. */
export const makePicture = (asked: PicturePage): Promise<Blob> => maker.call((api) => api.picture(asked));
