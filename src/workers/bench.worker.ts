/** The Bench off the main thread: sheets in pictures found and measured; the simulated camera's frames of them drawn. */
import { expose } from 'comlink';
import { standIn, withMetadata, type FrameFacts } from '../core/simulation/metadata';
import { bytesOfGray } from '../core/simulation/sensor';
import type { PictureFacts } from '../core/photos/metadata';
import { measureEdgeFrame, type EdgeFrame, type EdgeFrameProblem } from '../core/bench/edgeFrame';
import { measureFocusFrame, type FocusFrame, type FocusProblem } from '../core/bench/focusFrame';
import type { Gray, ImagePoint } from '../core/bench/gray';
import { projected, type CameraIntrinsics, type Pose } from '../core/bench/pose';
import { isRefused, type RefusedFrame } from '../core/bench/refused';
import { focusHalves } from '../core/bench/sheets';
import {
  edgeShot,
  focusShot,
  spotShot,
  type EdgeScene,
  type FocusSheetScene,
  type SpotScene
} from '../core/bench/simulate';
import { findSpots, type Spots, type SpotsProblem } from '../core/bench/spots';
import { lookAtMarks, type MarkAt, type MarkedFrame } from '../core/drills/series/fiducials';
import { marksShot, type MarksScene } from '../core/drills/series/simulate';
import { luminanceOf } from '../core/measure/luminance';
import { seededRandom } from '../core/maths/random';
import { openPicture, type DecodedPixels } from '../photos/openPhoto';

/** What the kit says, where the file does not. */
export interface BenchAsked {
  /** The longer side of the sensor, mm. */
  readonly sensorMm: number;
  readonly focalLengthMm: number | null;
  readonly fNumber: number | null;
  /** What a millimetre of the printed sheet measures, mm. */
  readonly scale: number;
  readonly pixels: DecodedPixels | null;
}

export interface Shown {
  readonly image: Blob;
  readonly width: number;
  readonly height: number;
  /** Across the leaning half, as shares of the picture: as far as what was aimed at, and the sharpest; null off the sheet. */
  readonly aimed: readonly [ImagePoint, ImagePoint] | null;
  readonly sharpest: readonly [ImagePoint, ImagePoint] | null;
}

/** What a picture that was read tells of itself. */
export interface FrameTold {
  readonly facts: PictureFacts;
  readonly focalLengthMm: number;
  readonly fNumber: number;
  readonly simulated: boolean;
}

/** What a file does not say and may be typed. */
export type Lacks = 'focalLength' | 'stop';
export type Unread = { readonly kind: 'unread'; readonly reason: string; readonly lacks: Lacks | null };
export type FocusRead =
  | Unread
  | (FrameTold & RefusedFrame<FocusProblem> & { readonly kind: 'problem' })
  | (FrameTold & { readonly kind: 'measured'; readonly frame: Omit<FocusFrame, 'poses'>; readonly shown: Shown });
export type EdgesRead =
  | Unread
  | (FrameTold & RefusedFrame<EdgeFrameProblem> & { readonly kind: 'problem' })
  | (FrameTold & {
      readonly kind: 'measured';
      readonly frame: EdgeFrame;
      readonly pixelMm: number;
      readonly pixels: { readonly width: number; readonly height: number };
      readonly crop: Blob;
    });

export type SpotsRead =
  | Unread
  | (FrameTold & { readonly kind: 'problem'; readonly problem: SpotsProblem })
  | (FrameTold & {
      readonly kind: 'measured';
      readonly found: Spots;
      readonly image: Blob;
      readonly width: number;
      readonly height: number;
    });

/** A frame of marks in line: what each shows, with a look at each and at the whole. */
export type MarksRead =
  | Unread
  | (FrameTold & { readonly kind: 'problem'; readonly problem: 'twice' | 'noMarks' })
  | (FrameTold & {
      readonly kind: 'measured';
      readonly marked: MarkedFrame;
      readonly pixelMm: number;
      readonly width: number;
      readonly height: number;
      /** Each mark, as large as fits; and its middle at 100%. */
      readonly crops: readonly { readonly index: number; readonly image: Blob; readonly full: Blob }[];
      readonly image: Blob;
    });

/** The look of a sheet on the screen, pixels. */
const shownPx = 900;
/** What is looked at at 100%, pixels. */
const fullPx = { width: 180, height: 112 } as const;

interface Opened {
  readonly told: FrameTold;
  readonly picture: Gray;
  readonly lens: CameraIntrinsics;
  readonly jpeg: (x: number, y: number, width: number, height: number, widest: number) => Promise<Blob>;
  readonly close: () => void;
}

async function opened(file: Blob, asked: BenchAsked): Promise<Opened | Unread> {
  const from = await openPicture(file, asked.pixels);
  if (typeof from === 'string') return { kind: 'unread', reason: from, lacks: null };
  const { picture: decoded, facts } = from;
  const focalLengthMm = facts.focalLengthMm ?? asked.focalLengthMm;
  const fNumber = facts.fNumber ?? asked.fNumber;
  if (focalLengthMm === null || fNumber === null) {
    decoded.close();
    return focalLengthMm === null
      ? { kind: 'unread', reason: 'Its focal length isn’t in the file.', lacks: 'focalLength' }
      : { kind: 'unread', reason: 'Its aperture isn’t in the file.', lacks: 'stop' };
  }
  const { width, height } = decoded;
  const data = decoded.draw({ x: 0, y: 0, width, height }, { width, height });
  const simulated = facts.make === standIn.make && facts.model === standIn.model;
  // Others write the camera's pitch into pictures that were made smaller since.
  const pixelMm = simulated && facts.pixelMm !== null ? facts.pixelMm : asked.sensorMm / Math.max(width, height);
  const lens = { focalLengthMm, pixelMm, width, height };
  return {
    told: { facts, focalLengthMm, fNumber, simulated },
    picture: { width, height, light: luminanceOf(data.data) },
    lens,
    jpeg: (x, y, w, h, widest) => {
      const scale = Math.min(1, widest / w);
      return decoded.jpeg(
        { x, y, width: w, height: h },
        { width: Math.round(w * scale), height: Math.round(h * scale) },
        0.85
      );
    },
    close: decoded.close
  };
}

async function shownOf({ lens, picture, jpeg }: Opened, frame: FocusFrame): Promise<Shown> {
  const { upright, leaning, vPx, distortion } = frame.poses;
  const halves = focusHalves();
  const at = (pose: Pose, x: number, y: number) => projected(pose, { x, y }, { ...lens, distortion }, vPx);
  const margin = 6;
  const corners = ([pose, piece]: readonly [Pose, { readonly width: number; readonly height: number }]) =>
    [
      [-margin, -margin],
      [piece.width + margin, -margin],
      [piece.width + margin, piece.height + margin],
      [-margin, piece.height + margin]
    ].map(([x = 0, y = 0]) => at(pose, x, y));
  const all = [corners([upright, halves.upright]), corners([leaning, halves.leaning])].flat();
  const left = Math.max(0, Math.floor(Math.min(...all.map(({ x }) => x))));
  const top = Math.max(0, Math.floor(Math.min(...all.map(({ y }) => y))));
  const width = Math.min(picture.width, Math.ceil(Math.max(...all.map(({ x }) => x)))) - left;
  const height = Math.min(picture.height, Math.ceil(Math.max(...all.map(({ y }) => y)))) - top;
  const line = (mm: number | null): Shown['aimed'] => {
    if (mm === null) return null;
    const ends = [20, 100]
      .map((x) => at(leaning, x, mm))
      .map(({ x, y }) => ({ x: (x - left) / width, y: (y - top) / height }));
    const [from, to] = ends;
    return from && to ? [from, to] : null;
  };
  const image = await jpeg(left, top, width, height, shownPx);
  return { image, width, height, aimed: line(frame.aimedAtMm), sharpest: line(frame.sharpestAtMm) };
}

export interface FocusOrder extends FocusSheetScene {
  readonly seed: number;
  readonly facts: FrameFacts;
}
export interface EdgesOrder extends EdgeScene {
  readonly seed: number;
  readonly facts: FrameFacts;
}

export interface MarksOrder extends MarksScene {
  readonly seed: number;
  readonly facts: FrameFacts;
}
export interface SpotsOrder extends SpotScene {
  readonly seed: number;
  readonly facts: FrameFacts;
}

async function fileOf({ width, height, light }: Gray, facts: FrameFacts): Promise<Blob> {
  const canvas = new OffscreenCanvas(width, height);
  canvas.getContext('2d')?.putImageData(new ImageData(bytesOfGray(light), width, height), 0, 0);
  const jpeg = await canvas.convertToBlob({ type: 'image/jpeg', quality: 0.92 });
  return new Blob([withMetadata(new Uint8Array(await jpeg.arrayBuffer()), facts)], { type: 'image/jpeg' });
}

const bench = {
  async focus(file: Blob, asked: BenchAsked): Promise<FocusRead> {
    const from = await opened(file, asked);
    if ('lacks' in from) return from;
    try {
      const frame = measureFocusFrame(from.picture, from.lens, from.told.fNumber, asked.scale);
      if (isRefused(frame)) return { ...from.told, kind: 'problem', ...frame };
      const shown = await shownOf(from, frame);
      const { poses: _, ...told } = frame;
      return { ...from.told, kind: 'measured', frame: told, shown };
    } finally {
      from.close();
    }
  },
  async edges(file: Blob, asked: BenchAsked): Promise<EdgesRead> {
    const from = await opened(file, asked);
    if ('lacks' in from) return from;
    try {
      const frame = measureEdgeFrame(from.picture, from.lens);
      if (isRefused(frame)) return { ...from.told, kind: 'problem', ...frame };
      // The same place of every frame, at 100%: the edge nearest to the middle.
      const [nearest] = [...frame.edges].sort((a, b) => a.height - b.height);
      const side = Math.min(220, from.picture.width, from.picture.height);
      const clamp = (value: number, most: number) => Math.round(Math.min(Math.max(0, value - side / 2), most - side));
      const crop = await from.jpeg(
        clamp(nearest?.x ?? 0, from.picture.width),
        clamp(nearest?.y ?? 0, from.picture.height),
        side,
        side,
        side
      );
      const { pixelMm, width, height } = from.lens;
      return { ...from.told, kind: 'measured', frame, pixelMm, pixels: { width, height }, crop };
    } finally {
      from.close();
    }
  },
  async spots(file: Blob, asked: BenchAsked): Promise<SpotsRead> {
    const from = await opened(file, asked);
    if ('lacks' in from) return from;
    try {
      const { width, height, pixelMm } = from.lens;
      const found = findSpots(from.picture, { fNumber: from.told.fNumber, widthMm: width * pixelMm });
      if (typeof found === 'string') return { ...from.told, kind: 'problem', problem: found };
      const image = await from.jpeg(0, 0, width, height, shownPx);
      return { ...from.told, kind: 'measured', found, image, width, height };
    } finally {
      from.close();
    }
  },
  async marks(file: Blob, asked: BenchAsked, expected: readonly MarkAt[]): Promise<MarksRead> {
    const from = await opened(file, asked);
    if ('lacks' in from) return from;
    try {
      const marked = lookAtMarks(from.picture, expected);
      if (marked === 'twice') return { ...from.told, kind: 'problem', problem: 'twice' };
      if (marked.marks.length === 0 && expected.length > 0)
        return { ...from.told, kind: 'problem', problem: 'noMarks' };
      const { width, height, pixelMm } = from.lens;
      const crops: { index: number; image: Blob; full: Blob }[] = [];
      for (const { index, x, y, sidePx } of marked.marks) {
        // The code and the bars beside it.
        const [w, h] = [Math.round(2.4 * sidePx), Math.round(1.5 * sidePx)];
        const left = Math.max(0, Math.min(width - w, Math.round(x - 0.7 * sidePx)));
        const top = Math.max(0, Math.min(height - h, Math.round(y - h / 2)));
        if (w >= width || h >= height) continue;
        const [wide, high] = [Math.min(fullPx.width, width), Math.min(fullPx.height, height)];
        const at = (middle: number, size: number, most: number) =>
          Math.max(0, Math.min(most - size, Math.round(middle - size / 2)));
        crops.push({
          index,
          image: await from.jpeg(left, top, w, h, 220),
          full: await from.jpeg(at(x, wide, width), at(y, high, height), wide, high, wide)
        });
      }
      const image = await from.jpeg(0, 0, width, height, shownPx);
      return { ...from.told, kind: 'measured', marked, pixelMm, width, height, crops, image };
    } finally {
      from.close();
    }
  },
  async simulateMarks({ seed, facts, ...scene }: MarksOrder): Promise<Blob> {
    return fileOf(marksShot(scene, seededRandom(seed)), facts);
  },
  async simulateSpots({ seed, facts, ...scene }: SpotsOrder): Promise<Blob> {
    return fileOf(spotShot(scene, seededRandom(seed)), facts);
  },
  async simulateFocus({ seed, facts, ...scene }: FocusOrder): Promise<Blob> {
    return fileOf(focusShot(scene, seededRandom(seed)).picture, facts);
  },
  async simulateEdges({ seed, facts, ...scene }: EdgesOrder): Promise<Blob> {
    return fileOf(edgeShot(scene, seededRandom(seed)), facts);
  }
};
export type BenchWorker = typeof bench;

expose(bench);
