/** Sheets of paper, upright, in points (1/72 inch). A4: ISO 216, 210 × 297 mm. Letter: ANSI/ASME Y14.1, 8.5 × 11 in. */
export const papers = ['A4', 'Letter'] as const;
export type Paper = (typeof papers)[number];

const mm = 72 / 25.4;
export const paperSizes: Readonly<Record<Paper, { readonly width: number; readonly height: number }>> = {
  A4: { width: 210 * mm, height: 297 * mm },
  Letter: { width: 612, height: 792 }
};
