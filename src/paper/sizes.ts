/** Sheets of paper, upright, in points (1/72 inch). */
import { paperMm, papers, type Paper } from '../core/paper/sizes';
import { mmPerInch } from '../core/units/conversions';

export { papers, type Paper };
export const pointsPerMm = 72 / mmPerInch;
/** To a thousandth: 8.5 inches are 612 points. */
const points = (mm: number): number => Number((mm * pointsPerMm).toFixed(3));
const inPoints = (paper: Paper) => ({ width: points(paperMm[paper].width), height: points(paperMm[paper].height) });
export const paperSizes = { A4: inPoints('A4'), Letter: inPoints('Letter') } as const;
