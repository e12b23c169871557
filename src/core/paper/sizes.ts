/** Sheets of paper, upright, mm. A4: ISO 216. Letter: ANSI/ASME Y14.1, 8.5 × 11 in. */
export const papers = ['A4', 'Letter'] as const;
export type Paper = (typeof papers)[number];

export const paperMm: Readonly<Record<Paper, { readonly width: number; readonly height: number }>> = {
  A4: { width: 210, height: 297 },
  Letter: { width: 215.9, height: 279.4 }
};
