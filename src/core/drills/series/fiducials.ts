/**
 * Marks that stand in line, one an object: found by their codes, and each held against itself in its sharpest frame. What is drawn on a mark is
 * nothing like an eye, and the same in every frame: its own sharpest picture is what it looks like sharp.
 */
import { deviation, greatest, least, mean } from 'd3-array';
import { smaller, type Gray } from '../../bench/gray';
import { findMarkers } from '../../bench/markers';
import { ladderMark, ladderMarkOf, ladderMarks } from '../../bench/sheets';
import { fitDisc } from '../../measure/fit';
import { ownExpected } from '../../measure/own';
import { band, sectors, spectrumOf, type Spectrum } from '../../measure/spectrum';

/** A mark as it lies in a picture: the middle and the side of its code, pixels. */
export interface MarkAt {
  readonly index: number;
  readonly x: number;
  readonly y: number;
  readonly sidePx: number;
}

/** A mark with what its patch shows, at full size, half, and a quarter: large discs are measured in small pictures. */
export interface MarkSeen extends MarkAt {
  /** Its code could be read; else it lies where other frames have it. */
  readonly read: boolean;
  readonly spectra: readonly Spectrum[];
}

export interface MarkedFrame {
  readonly marks: readonly MarkSeen[];
}

const [firstMark] = ladderMark(0).markers;
/** Side of a mark's code as printed, mm. */
export const markSideMm = firstMark?.side ?? 36;

/** Times smaller at which a mark is looked at. */
export const markScales = [1, 2, 4] as const;
/** The patch is so many times the code's side, as a power of two of pixels (chosen: code and bars lie in it). */
const patchTimes = 1.6;
const sides = { least: 32, most: 512 } as const;
/** A disc larger than this is measured again at half the size, pixels (chosen: well under the largest that can be told). */
const largePx = 9;

/** @param expected where marks lie by other frames, for those whose code is too blurred to be read */
export function lookAtMarks(picture: Gray, expected: readonly MarkAt[] = []): MarkedFrame | 'twice' {
  const { markers, twice } = findMarkers(picture);
  if (twice.some((id) => ladderMarkOf(id) !== null)) return 'twice';
  const found = markers.flatMap(({ id, corners }): MarkAt[] => {
    const index = ladderMarkOf(id);
    if (index === null) return [];
    const side = (a: number, b: number) =>
      Math.hypot((corners[a]?.x ?? 0) - (corners[b]?.x ?? 0), (corners[a]?.y ?? 0) - (corners[b]?.y ?? 0));
    const sidePx = (side(0, 1) + side(1, 2) + side(2, 3) + side(3, 0)) / 4;
    return [{ index, x: mean(corners, ({ x }) => x) ?? 0, y: mean(corners, ({ y }) => y) ?? 0, sidePx }];
  });
  const seen = (mark: MarkAt, read: boolean): MarkSeen[] => {
    const spectra = spectraAt(picture, mark);
    return spectra.length === 0 ? [] : [{ ...mark, read, spectra }];
  };
  const unread = expected.filter(({ index }) => !found.some((mark) => mark.index === index));
  return { marks: [...found.flatMap((mark) => seen(mark, true)), ...unread.flatMap((mark) => seen(mark, false))] };
}

/** Side of what is looked at of a mark, pixels at full size. */
export const markPatchSide = (sidePx: number): number =>
  Math.min(sides.most, Math.max(sides.least, 2 ** Math.round(Math.log2(patchTimes * sidePx))));

/** None where the patch leaves the picture. */
function spectraAt(picture: Gray, { x, y, sidePx }: MarkAt): Spectrum[] {
  const side = markPatchSide(sidePx);
  const [left, top] = [Math.round(x - side / 2), Math.round(y - side / 2)];
  if (left < 0 || top < 0 || left + side > picture.width || top + side > picture.height) return [];
  const light = new Float32Array(side * side);
  for (let row = 0; row < side; row++)
    light.set(
      picture.light.subarray((top + row) * picture.width + left, (top + row) * picture.width + left + side),
      row * side
    );
  const patch: Gray = { width: side, height: side, light };
  return markScales.flatMap((times) =>
    side / times >= sides.least ? [spectrumOf(smaller(patch, times).light, side / times)] : []
  );
}

/** Marks as they lie to one another, from all frames of a series that could read some, and how far each of those is shifted. */
export interface MarkLayout {
  readonly marks: readonly MarkAt[];
  /** Standard deviation of the frames' shifts, pixels: little where the camera stood still. */
  readonly shiftsPx: number;
}

/** Rounds in which places and shifts settle, to a hundredth of a pixel where neighbours have but a frame in common (tried). */
const rounds = 60;

/** Where every mark lies that any frame could read. Each frame is shifted as a whole: places and shifts by least squares, in turn. */
export function layoutOf(frames: readonly MarkedFrame[]): MarkLayout {
  const reads = frames.map(({ marks }) => marks.filter(({ read }) => read));
  const indices = [...new Set(reads.flat().map(({ index }) => index))].sort((a, b) => a - b);
  let shifts = reads.map(() => ({ x: 0, y: 0 }));
  let marks: MarkAt[] = [];
  for (let round = 0; round < rounds; round++) {
    marks = indices.map((index) => {
      const own = reads.flatMap((all, at) =>
        all.filter((mark) => mark.index === index).map((mark) => ({ ...mark, shift: shifts[at] ?? { x: 0, y: 0 } }))
      );
      return {
        index,
        x: mean(own, ({ x, shift }) => x - shift.x) ?? 0,
        y: mean(own, ({ y, shift }) => y - shift.y) ?? 0,
        sidePx: mean(own, ({ sidePx }) => sidePx) ?? 0
      };
    });
    shifts = reads.map((all) => shiftOf(marks, all) ?? { x: 0, y: 0 });
  }
  const told = shifts.filter((_, at) => (reads[at]?.length ?? 0) > 0);
  const shiftsPx = Math.hypot(deviation(told, ({ x }) => x) ?? 0, deviation(told, ({ y }) => y) ?? 0);
  return { marks, shiftsPx };
}

/** By how much those read lie off where the layout has them; null where none was read. */
function shiftOf(
  layout: readonly MarkAt[],
  read: readonly MarkAt[]
): { readonly x: number; readonly y: number } | null {
  const pairs = read.flatMap((mark) => {
    const known = layout.find(({ index }) => index === mark.index);
    return known ? [{ x: mark.x - known.x, y: mark.y - known.y }] : [];
  });
  return pairs.length === 0 ? null : { x: mean(pairs, ({ x }) => x) ?? 0, y: mean(pairs, ({ y }) => y) ?? 0 };
}

/** Moved by less than this share of a code's side between frames, the camera stood still (chosen). */
const stillShare = 0.25;

/** Where all marks lie in a frame; nowhere where none was read in it and the camera did not stand still. */
export function expectedIn({ marks: all, shiftsPx }: MarkLayout, { marks }: MarkedFrame): MarkAt[] {
  const shift = shiftOf(
    all,
    marks.filter(({ read }) => read)
  );
  if (!shift && shiftsPx > stillShare * Math.min(...all.map(({ sidePx }) => sidePx))) return [];
  return all.map((mark) => ({ ...mark, x: mark.x + (shift?.x ?? 0), y: mark.y + (shift?.y ?? 0) }));
}

export interface MarkDisc {
  readonly index: number;
  /** Diameter of its disc beyond that of its sharpest frame, pixels. */
  readonly discPx: number;
}

export interface SeriesDiscs {
  /** By frame; a mark that could not be measured is missing. */
  readonly frames: readonly (readonly MarkDisc[])[];
  /** The frame in which each mark is sharpest, by its index. */
  readonly sharpest: ReadonlyMap<number, number>;
}

/** What is fine in a patch: the power of the upper half of its bins. */
export const fineOf = ({ spectra }: MarkSeen): number => {
  const [whole] = spectra;
  let sum = 0;
  for (let at = 0; whole && at < sectors * band.bins; at++)
    if (at % band.bins >= band.bins / 2) sum += (whole.power[at] ?? 0) * (whole.count[at] ?? 0);
  return sum;
};

/** The most that noise can be of what is fine in a patch, as a share of its power. */
export const noiseOf = (mark: MarkSeen): number => {
  const [whole] = mark.spectra;
  let waves = 0;
  for (let at = 0; whole && at < sectors * band.bins; at++)
    if (at % band.bins >= band.bins / 2) waves += whole.count[at] ?? 0;
  const fine = fineOf(mark);
  return whole && fine > 0 ? (whole.noise * waves) / fine : 0;
};

/** Of each mark, by its index, the frame in which it is sharpest, and how it looks there. */
export function sharpestOf(frames: readonly MarkedFrame[]): {
  readonly sharpest: ReadonlyMap<number, number>;
  readonly references: ReadonlyMap<number, MarkSeen>;
} {
  const sharpest = new Map<number, number>();
  const references = new Map<number, MarkSeen>();
  for (let index = 0; index < ladderMarks; index++) {
    const all = frames.flatMap(({ marks }, frame) =>
      marks.filter((mark) => mark.index === index).map((mark) => ({ frame, mark }))
    );
    const best = greatest(
      all.filter(({ mark }) => mark.read),
      ({ mark }) => fineOf(mark)
    );
    if (!best) continue;
    sharpest.set(index, best.frame);
    references.set(index, best.mark);
  }
  return { sharpest, references };
}

/** Each mark in each frame against itself where it is sharpest. */
export function discsOf(frames: readonly MarkedFrame[]): SeriesDiscs {
  const { sharpest, references } = sharpestOf(frames);
  return {
    sharpest,
    frames: frames.map(({ marks }, frame) =>
      marks.flatMap((mark): MarkDisc[] => {
        const reference = references.get(mark.index);
        if (!reference) return [];
        if (sharpest.get(mark.index) === frame) return [{ index: mark.index, discPx: 0 }];
        const discPx = against(mark, reference);
        return discPx === null ? [] : [{ index: mark.index, discPx }];
      })
    )
  };
}

/** What a mark's patch is expected to show at a size, from its sharpest. */
export const expectedAt = (mark: MarkAt, reference: MarkAt, spectrum: Spectrum, times: number) =>
  ownExpected(
    { eyesPx: reference.sidePx / times, rollDeg: 0, spectrum, discPx: 0 },
    { eyesPx: mark.sidePx / times, rollDeg: 0 }
  );

/** At full size, or at half and a quarter where the disc is too large for it. */
function against(mark: MarkSeen, reference: MarkSeen): number | null {
  let found: number | null = null;
  for (const [at, times] of markScales.entries()) {
    const [own, sharp] = [mark.spectra[at], reference.spectra[at]];
    if (!own || !sharp) break;
    const fit = fitDisc(own, expectedAt(mark, reference, sharp, times));
    if (!fit) break;
    found = fit.discPx * times;
    if (fit.discPx <= largePx) break;
  }
  return found;
}

/** The mark that is least out of focus in a frame; null where none could be measured. */
export const nearestTo = (discs: readonly MarkDisc[]): number | null =>
  least(discs, (a, b) => a.discPx - b.discPx)?.index ?? null;
