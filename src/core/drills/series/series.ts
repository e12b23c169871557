/** Frames of marks in line: where the plane of each lies, and which mark is nearest to it. */
import { group, mean, median } from 'd3-array';
import { blurDiscDiameter } from '../../optics/blur';
import { imageDistance } from '../../optics/thinLens';
import {
  discsOf,
  expectedIn,
  layoutOf,
  markSideMm,
  nearestTo,
  type MarkAt,
  type MarkDisc,
  type MarkedFrame
} from './fiducials';

/** A frame as its file says. */
export interface DrillFrame {
  readonly id: string;
  readonly name: string;
  readonly takenMs: number | null;
  readonly fNumber: number;
  readonly focalLengthMm: number;
  /** s; null where the file does not say. */
  readonly shutterS: number | null;
  readonly lens: string | null;
  /** Of the picture as it is held, pixels. */
  readonly width: number;
  readonly height: number;
  readonly pixelMm: number;
  readonly marked: MarkedFrame;
}

export interface PlaneAt {
  /** From the pupil, mm, with nine tenths. */
  readonly mm: number;
  readonly low: number;
  readonly high: number;
}

export interface FrameRead extends DrillFrame {
  readonly discs: readonly MarkDisc[];
  readonly plane: PlaneAt | null;
  /** The mark that is sharpest. */
  readonly nearest: number | null;
  /** Where marks lie in it, and how far away each is, mm from the pupil. */
  readonly marks: readonly (MarkAt & { readonly depthMm: number })[];
}

/** How far a measured disc may lie off, as a share of itself, and at least, pixels (chosen on simulated marks). */
const off = { share: 0.1, px: 0.8 } as const;
/** Δχ² within which nine of ten lie (one figure). */
const nineTenths = 2.706;
/** Planes tried, evenly in vergence, from 0.7 of the nearest thing's distance to 1.6 of the furthest's (chosen: a millimetre or so at two metres). */
const planesTried = 1200;
const reach = { near: 0.7, far: 1.6 } as const;

/** How far away a mark is by its size: similar triangles, the picture as far behind the pupil as that makes it. */
export function depthOfMark(
  sidePx: number,
  { focalLengthMm, pixelMm }: Pick<DrillFrame, 'focalLengthMm' | 'pixelMm'>
): number {
  let depth = (focalLengthMm * markSideMm) / (sidePx * pixelMm);
  for (let round = 0; round < 8; round++)
    depth = (imageDistance(focalLengthMm, Math.max(depth, focalLengthMm * 1.05)) * markSideMm) / (sidePx * pixelMm);
  return depth;
}

/** A mark in a frame: how much more blurred than in its sharpest frame, and how blurred it is there, pixels. */
export interface MarkBlur {
  readonly depthMm: number;
  readonly discPx: number;
  readonly sharpestPx?: number;
}

type Optics = Pick<DrillFrame, 'focalLengthMm' | 'fNumber' | 'pixelMm'>;
const discAt = ({ focalLengthMm, fNumber, pixelMm }: Optics, plane: number, depthMm: number): number =>
  blurDiscDiameter(focalLengthMm, fNumber, plane, depthMm) / pixelMm;

/** The plane that best explains how blurred each mark is; null with fewer than two. */
export function bestPlane(seen: readonly MarkBlur[], optics: Optics): PlaneAt | null {
  if (seen.length < 2) return null;
  const depths = seen.map(({ depthMm }) => depthMm);
  const [first, last] = [1 / (reach.near * Math.min(...depths)), 1 / (reach.far * Math.max(...depths))];
  const planes = Array.from({ length: planesTried + 1 }, (_, at) => 1 / (first + (at / planesTried) * (last - first)));
  const squares = planes.map((plane) =>
    seen.reduce((sum, { depthMm, discPx, sharpestPx = 0 }) => {
      const disc = discAt(optics, plane, depthMm);
      // Powers multiply, so squares of discs add: beyond what its sharpest frame has itself.
      const expected = Math.sqrt(Math.max(0, disc * disc - sharpestPx * sharpestPx));
      return sum + ((discPx - expected) / Math.max(off.px, off.share * expected)) ** 2;
    }, 0)
  );
  const best = Math.min(...squares);
  const at = squares.indexOf(best);
  const within = planes.filter((_, index) => (squares[index] ?? Infinity) <= best + nineTenths);
  return { mm: planes[at] ?? NaN, low: Math.min(...within), high: Math.max(...within) };
}

/**
 * The plane of each frame of a series. A mark's sharpest frame need not have it quite sharp: once planes are known, so is how blurred it is
 * there, and they are looked for again.
 *
 * @param sharpest the frame in which each mark is sharpest, by its index
 */
export function planesOf(
  frames: readonly { readonly optics: Optics; readonly marks: readonly (MarkBlur & { readonly index: number })[] }[],
  sharpest: ReadonlyMap<number, number>
): (PlaneAt | null)[] {
  let planes = frames.map(({ marks, optics }) => bestPlane(marks, optics));
  for (let round = 0; round < rounds; round++) {
    const blurOf = (index: number, depthMm: number): number => {
      const at = sharpest.get(index) ?? -1;
      const [frame, plane] = [frames[at], planes[at]];
      return frame && plane ? discAt(frame.optics, plane.mm, depthMm) : 0;
    };
    planes = frames.map(({ marks, optics }) =>
      bestPlane(
        marks.map((mark) => ({ ...mark, sharpestPx: blurOf(mark.index, mark.depthMm) })),
        optics
      )
    );
  }
  return planes;
}
/** Planes are looked for again so often (chosen: they move by less than a millimetre after that). */
const rounds = 4;

export function readSeries(frames: readonly DrillFrame[]): FrameRead[] {
  const { frames: discs, sharpest } = discsOf(frames.map(({ marked }) => marked));
  const { marks: all } = layoutOf(frames.map(({ marked }) => marked));
  const sizes = new Map(all.map(({ index, sidePx }) => [index, sidePx]));
  const placed = frames.map((frame, at) => {
    const marks = frame.marked.marks.map(({ index, x, y, sidePx }) => {
      return { index, x, y, sidePx, depthMm: depthOfMark(sizes.get(index) ?? sidePx, frame) };
    });
    const seen = (discs[at] ?? []).flatMap(({ index, discPx }) => {
      const mark = marks.find((one) => one.index === index);
      return mark ? [{ index, depthMm: mark.depthMm, discPx }] : [];
    });
    return { marks, seen };
  });
  const planes = planesOf(
    placed.map(({ seen }, at) => ({ optics: frames[at] as DrillFrame, marks: seen })),
    sharpest
  );
  return frames.map((frame, at): FrameRead => {
    const own = discs[at] ?? [];
    return {
      ...frame,
      discs: own,
      plane: planes[at] ?? null,
      nearest: nearestTo(own),
      marks: placed[at]?.marks ?? []
    };
  });
}

/** Marks so much larger in one frame than in another were taken from nearer, as a ratio (chosen). */
const nearerBy = 1.15;

/** Places of frames in a list, those taken from one distance together, the nearest first. */
export function byDistance(frames: readonly MarkedFrame[]): number[][] {
  const sized = frames
    .map(({ marks }, at) => ({ at, sidePx: median(marks, ({ sidePx }) => sidePx) ?? 0 }))
    .sort((a, b) => b.sidePx - a.sidePx);
  const apart = sized.map(({ sidePx }, index) => (sized[index - 1]?.sidePx ?? 0) > nearerBy * sidePx);
  return [...group(sized, (_, index) => apart.slice(0, index + 1).filter(Boolean).length).values()].map((own) =>
    own.map(({ at }) => at)
  );
}

/**
 * Frames that lack a mark, by their place in the list, and where all marks are to be looked for in each.
 * @param apart whether they were taken from several distances: then only those of one distance tell where marks lie in one another
 */
export function lookedFor(frames: readonly MarkedFrame[], apart: boolean): ReadonlyMap<number, readonly MarkAt[]> {
  const together = apart ? byDistance(frames) : [frames.map((_, at) => at)];
  return new Map(
    together.flatMap((places) => {
      const layout = layoutOf(places.flatMap((at) => frames[at] ?? []));
      return places.flatMap((at): [number, MarkAt[]][] => {
        const frame = frames[at];
        const expected = frame ? expectedIn(layout, frame) : [];
        const lacks = expected.some(({ index }) => !frame?.marks.some((mark) => mark.index === index));
        return lacks ? [[at, expected]] : [];
      });
    })
  );
}

/** A series from several distances: frames of each are read together. */
export function readByDistance(frames: readonly DrillFrame[]): FrameRead[] {
  const read = new Map<DrillFrame, FrameRead>();
  for (const places of byDistance(frames.map(({ marked }) => marked))) {
    const own = places.flatMap((at) => frames[at] ?? []);
    for (const [index, frame] of readSeries(own).entries()) {
      const of = own[index];
      if (of) read.set(of, frame);
    }
  }
  return frames.flatMap((frame) => read.get(frame) ?? []);
}

/** How far apart neighbouring marks stand in a series, mm; null with fewer than two. */
export function spacingOf(frames: readonly FrameRead[]): number | null {
  const depths = [...new Set(frames.flatMap(({ marks }) => marks.map(({ index }) => index)))]
    .sort((a, b) => a - b)
    .map(
      (index) =>
        mean(frames.flatMap(({ marks }) => marks.filter((mark) => mark.index === index).map((mark) => mark.depthMm))) ??
        0
    );
  const gaps = depths.slice(1).map((depth, at) => Math.abs(depth - (depths[at] ?? 0)));
  return mean(gaps) ?? null;
}

/** The plane behind the mark that was focused on, mm; negative in front; null where either is not known. */
export function offsetFrom({ plane, marks }: FrameRead, index: number): number | null {
  const mark = marks.find((one) => one.index === index);
  return plane && mark ? plane.mm - mark.depthMm : null;
}
