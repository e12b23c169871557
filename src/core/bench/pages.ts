/** The sheets laid out on paper: pieces at their places, lines of text, what is cut and what is measured. In mm, y down. */
import { paperMm, type Paper } from '../paper/sizes';
import { edgePage, edgePages, focusHalves, ladderMark, ladderMarks, type SheetPiece } from './sheets';

export const sheetKinds = ['focus', 'edges', 'ladder'] as const;
export type SheetKind = (typeof sheetKinds)[number];

type PaperSize = (typeof paperMm)[Paper];
export interface SheetText {
  readonly x: number;
  readonly y: number;
  readonly size: number;
  readonly text: string;
  readonly bold?: boolean;
  readonly middle?: boolean;
}

export interface SheetPage extends PaperSize {
  /** What it is, for whoever cannot see it. */
  readonly title: string;
  readonly pieces: readonly { readonly piece: SheetPiece; readonly x: number; readonly y: number }[];
  readonly texts: readonly SheetText[];
  /** Thin lines, dashed where they are to be cut. */
  readonly lines: readonly {
    readonly from: readonly [number, number];
    readonly to: readonly [number, number];
    readonly cut: boolean;
  }[];
}

/** What the printer is checked by. */
export const scaleMm = 100;

/** A scale of 100 mm with ticks at both ends. */
function scaleAt(x: number, y: number): SheetPage['lines'] {
  const tick = (at: number) => ({ from: [at, y - 2] as const, to: [at, y + 2] as const, cut: false });
  return [{ from: [x, y] as const, to: [x + scaleMm, y] as const, cut: false }, tick(x), tick(x + scaleMm)];
}

function focusPage(paper: PaperSize): SheetPage {
  // Laid across: two halves side by side, cut between.
  const [width, height] = [paper.height, paper.width];
  const { upright, leaning } = focusHalves();
  const middle = width / 2;
  const [left, right] = [(middle - upright.width) / 2, middle + (middle - leaning.width) / 2];
  const top = (height - upright.height) / 2;
  const line = (y: number, text: string, bold = false): SheetText => {
    return { x: left + upright.width / 2, y: top + y, size: 3.4, text, bold, middle: true };
  };
  return {
    width,
    height,
    title: 'Focus sheet',
    pieces: [
      { piece: upright, x: left, y: top },
      { piece: leaning, x: right, y: top }
    ],
    texts: [
      line(124, 'Cut along the dashed line. Stand this half upright,', true),
      line(129, 'square to the lens. Focus on the eye, wide open.', true),
      line(134, 'Lean the other half back beside it, its middle as far away as'),
      line(139, 'the eye, at about 45°. Tripod or something to rest on, timer,'),
      line(144, 'stabiliser off. Refocus for each of ten frames or more,'),
      line(149, 'from near and from far in turn.'),
      line(158.5, `This line must measure ${scaleMm} mm. If not, type what it measures.`)
    ],
    lines: [
      ...scaleAt(left + (upright.width - scaleMm) / 2, top + 153),
      { from: [middle, 4], to: [middle, height - 4], cut: true }
    ]
  };
}

const spotNames = [
  'centre',
  'upper left, halfway out',
  'upper right, halfway out',
  'lower left, halfway out',
  'lower right, halfway out',
  'upper left corner',
  'upper right corner',
  'lower left corner',
  'lower right corner'
] as const;

function edgePageAt(paper: PaperSize, page: number): SheetPage {
  const piece = edgePage(page);
  const [x, y] = [(paper.width - piece.width) / 2, 12];
  const line = (at: number, text: string, bold = false): SheetText => {
    return { x: paper.width / 2, y: y + piece.height + at, size: 3.6, text, bold, middle: true };
  };
  return {
    ...paper,
    title: `Edge sheet, page ${page + 1}`,
    pieces: [{ piece, x, y }],
    texts: [
      line(8, `${page + 1} of ${edgePages}: ${spotNames[page] ?? ''} of the frame`, true),
      line(
        13.5,
        'Stick the pages on a flat wall where these parts of the frame fall, upright. Five are enough: the first and the corners.'
      ),
      line(
        19,
        `25 to 50 focal lengths away, square to the wall; tripod, timer, stabiliser off. The line measures ${scaleMm} mm.`
      )
    ],
    lines: scaleAt((paper.width - scaleMm) / 2, y + piece.height + 24)
  };
}

function ladderPage(paper: PaperSize): SheetPage {
  const across = 2;
  const left = (paper.width - 2 * 90) / 2;
  const marks = Array.from({ length: ladderMarks }, (_, index) => ({
    piece: ladderMark(index),
    x: left + (index % across) * 90 + 5,
    y: 14 + Math.floor(index / across) * 64
  }));
  return {
    ...paper,
    title: 'Marks in line',
    pieces: marks,
    texts: [
      ...marks.map(({ x, y }, index) => ({ x: x + 3, y: y + 8, size: 4.5, text: String(index + 1), bold: true })),
      {
        x: left + 95,
        y: 14 + 3 * 64 + 16,
        size: 3.6,
        text: 'Cut out; one an object, in line.'
      }
    ],
    lines: marks.flatMap(({ piece, x, y }) => [
      { from: [x - 2, y] as const, to: [x + piece.width + 4, y] as const, cut: true },
      { from: [x - 2, y + piece.height] as const, to: [x + piece.width + 4, y + piece.height] as const, cut: true }
    ])
  };
}

export function sheetPages(kind: SheetKind, paper: Paper): SheetPage[] {
  const size = paperMm[paper];
  if (kind === 'focus') return [focusPage(size)];
  if (kind === 'ladder') return [ladderPage(size)];
  return Array.from({ length: edgePages }, (_, page) => edgePageAt(size, page));
}
