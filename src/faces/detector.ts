/**
 * Faces and eyes in pictures: the whole picture, then tiles for small faces, then a crop of each head for its eyes. Positions only:
 * nothing that says who somebody is, is asked for. Runs where nothing can be fetched: its files are handed over.
 */
import { Human, type Config, type FaceResult } from '@vladmandic/human';
import { degrees } from '../core/maths/vector';
import { headPerEyes, merged, tilesOf, type PixelBox, type Find, type Size } from './boxes';
import type { Weights } from './weights';

export interface Point {
  readonly x: number;
  readonly y: number;
}

export interface FoundFace {
  readonly box: PixelBox;
  /** 0 to 1. */
  readonly score: number;
  /** The irises, pixels; left is the person's own left. */
  readonly left: Point;
  readonly right: Point;
  /** Width of the visible iris, mean of both eyes, pixels. */
  readonly irisPx: number;
  /** Turn of the head, degrees: positive to the picture's right; up; clockwise. */
  readonly yawDeg: number;
  readonly pitchDeg: number;
  readonly rollDeg: number;
  /** Gap of the lids over the eye's width, by eye. */
  readonly lids: { readonly left: number; readonly right: number };
}

/** Draws a part of the picture at a size: however it was decoded. */
export type DrawPart = (part: PixelBox, size: Size) => ImageData;

const types: Readonly<Record<string, string>> = { json: 'application/json', wasm: 'application/wasm' };

/** What the detector would fetch is handed over; everything else is refused. */
export function serveOnly(weights: Weights): void {
  globalThis.fetch = (address) => {
    const path = typeof address === 'string' ? address : address instanceof URL ? address.href : address.url;
    const name = path.slice(path.lastIndexOf('/') + 1);
    const bytes = weights[name];
    if (!bytes) return Promise.reject(new TypeError(`Nothing is fetched here: ${name}`));
    const type = types[name.slice(name.lastIndexOf('.') + 1)] ?? 'application/octet-stream';
    return Promise.resolve(new Response(bytes, { headers: { 'content-type': type } }));
  };
}

const off = { enabled: false } as const;
const config: Partial<Config> = {
  backend: 'wasm',
  wasmPath: '/faces/',
  wasmPlatformFetch: false,
  modelBasePath: '/faces/',
  cacheModels: false,
  debug: false,
  async: false,
  warmup: 'none',
  cacheSensitivity: 0,
  deallocate: true,
  filter: { enabled: false } as Config['filter'],
  gesture: off,
  body: off as Config['body'],
  hand: off as Config['hand'],
  object: off as Config['object'],
  segmentation: off as Config['segmentation']
};
const eyesWanted = { enabled: true } as const;
const face = (withEyes: boolean, most: number): Config['face'] =>
  ({
    enabled: true,
    detector: {
      modelPath: 'blazeface.json',
      rotation: withEyes,
      maxDetected: most,
      minConfidence: 0.3,
      minSize: 8,
      iouThreshold: 0.2,
      skipFrames: 0,
      skipTime: 0,
      return: false
    },
    mesh: { enabled: withEyes, modelPath: 'facemesh.json' },
    iris: { ...(withEyes ? eyesWanted : off), modelPath: 'iris.json', scale: 2.3 },
    attention: off,
    emotion: off,
    description: off,
    antispoof: off,
    liveness: off
  }) as unknown as Config['face'];

/** The longer side of what the detector is given of the whole picture and of a tile, pixels: its own input is 256. */
const lookPx = 512;
const headPx = 512;
/** A crop for the eyes is so many times the box of a face. */
const headRoom = 2;
const mostFaces = 100;
/** Crops of so many heads across and down are looked at together. */
const mosaic = 2;
/** A face found with this score needs no tile to be found again (chosen). */
const sureScore = 0.6;
/** Somebody who points at an eye hits it within this share of the distance between the eyes; faces are tried in these sizes about it. */
const pointedWithin = 0.35;
const sizesTried = [1, 1.6, 0.6] as const;

export class Detector {
  readonly #human: Human;

  private constructor(human: Human) {
    this.#human = human;
  }

  static async start(weights: Weights): Promise<Detector> {
    serveOnly(weights);
    const human = new Human({ ...config, face: face(true, mostFaces) });
    await human.load();
    return new Detector(human);
  }

  /**
   * @param eyesPx how far apart eyes are expected in the picture, pixels; null when nothing is known
   * @param expected how many faces; where the whole picture shows so many, no tiles are looked at. Null when nothing is known
   */
  async find(size: Size, draw: DrawPart, eyesPx: number | null, expected: number | null = null): Promise<FoundFace[]> {
    const boxes: { box: PixelBox; score: number }[] = [];
    const lookAt = async (part: PixelBox) => {
      for (const found of await this.#look(part, draw, lookPx, false))
        boxes.push({ box: toPicture(found.box, part, lookPx), score: found.score });
    };
    await lookAt({ x: 0, y: 0, ...size });
    const surely = merged(boxes).filter(({ score }) => score >= sureScore).length;
    if (expected === null || surely < expected) for (const part of tilesOf(size, eyesPx)) await lookAt(part);
    const faces = merged(boxes);
    const found: FoundFace[] = [];
    for (let first = 0; first < faces.length; first += mosaic * mosaic)
      found.push(...(await this.#eyes(faces.slice(first, first + mosaic * mosaic), size, draw)));
    return found;
  }

  /**
   * The face of which somebody has pointed at an eye, however large it is.
   *
   * @param eyesPx about how far apart its eyes are, pixels
   */
  async findAt(size: Size, draw: DrawPart, at: Point, eyesPx: number): Promise<FoundFace | null> {
    for (const larger of sizesTried) {
      const width = eyesPx * larger * headPerEyes;
      const box = { x: at.x - width / 2, y: at.y - width / 2, width, height: width };
      const [found] = await this.#eyes([{ box, score: 1 }], size, draw);
      if (!found) continue;
      const off = Math.min(distance(found.left, at), distance(found.right, at));
      if (off < pointedWithin * distance(found.left, found.right)) return found;
    }
    return null;
  }

  /**
   * The eyes of faces whose places are known: a crop of each head, several side by side in one look, since finding heads in it costs more
   * than their eyes.
   */
  async #eyes(faces: readonly Find[], size: Size, draw: DrawPart): Promise<FoundFace[]> {
    const across = faces.length > 1 ? mosaic : 1;
    const crops = faces.map(({ box }) => {
      const side = headRoom * Math.max(box.width, box.height);
      return { x: box.x + box.width / 2 - side / 2, y: box.y + box.height / 2 - side / 2, width: side, height: side };
    });
    const context = new OffscreenCanvas(across * headPx, across * headPx).getContext('2d', {
      willReadFrequently: true
    });
    if (!context) throw new Error('This browser can’t draw images.');
    crops.forEach((crop, index) =>
      context.putImageData(draw(crop, { width: headPx, height: headPx }), ...placeIn(across, index))
    );
    const whole = { x: 0, y: 0, width: across * headPx, height: across * headPx };
    const drawn = () => context.getImageData(0, 0, whole.width, whole.height);
    const seen = (await this.#look(whole, drawn, whole.width, true)).filter((item) => item.mesh.length > 468);
    return faces.flatMap(({ box, score }, index) => {
      const [left, top] = placeIn(across, index);
      const off = ({ box: [x, y, width, height] }: FaceResult) =>
        Math.hypot(x + width / 2 - left - headPx / 2, y + height / 2 - top - headPx / 2);
      const [item] = [...seen].sort((a, b) => off(a) - off(b));
      const crop = crops[index];
      if (!item || !crop || off(item) > headPx / 4) return [];
      const found = faceOf(item, { ...crop, left, top }, size);
      return found ? [{ box, score, ...found }] : [];
    });
  }

  async #look(part: PixelBox, draw: DrawPart, longPx: number, withEyes: boolean): Promise<FaceResult[]> {
    const long = Math.max(part.width, part.height);
    const drawn = draw(part, {
      width: Math.max(8, Math.round((part.width / long) * longPx)),
      height: Math.max(8, Math.round((part.height / long) * longPx))
    });
    const tensor = this.#human.tf.browser.fromPixels(drawn);
    const input = this.#human.tf.expandDims(tensor, 0);
    try {
      const result = await this.#human.detect(input as Parameters<Human['detect']>[0], {
        face: face(withEyes, withEyes ? 4 * mosaic * mosaic : mostFaces)
      });
      return result.face;
    } finally {
      tensor.dispose();
      input.dispose();
    }
  }
}

const distance = (a: Point, b: Point): number => Math.hypot(a.x - b.x, a.y - b.y);

/** Where the crop of that number lies in a mosaic, pixels from its left and top. */
const placeIn = (across: number, index: number): [number, number] => [
  (index % across) * headPx,
  Math.floor(index / across) * headPx
];

/** What a crop of a head shows. @param crop where it is in the picture, and where in what was looked at */
function faceOf(
  { mesh, rotation }: FaceResult,
  crop: PixelBox & { readonly left: number; readonly top: number },
  size: Size
): Omit<FoundFace, 'box' | 'score'> | null {
  const at = (index: number): Point => {
    const [x = NaN, y = NaN] = mesh[index] ?? [];
    return { x: crop.x + ((x - crop.left) / headPx) * crop.width, y: crop.y + ((y - crop.top) / headPx) * crop.height };
  };
  // The mesh's irises, as the person has them.
  const [left, right] = [at(468), at(473)];
  if (![left, right].every(({ x, y }) => x >= 0 && y >= 0 && x < size.width && y < size.height)) return null;
  const gap = (upper: number, lower: number, outer: number, inner: number) =>
    distance(at(upper), at(lower)) / Math.max(distance(at(outer), at(inner)), 1e-6);
  // Four points on the rim of each; the lids hide some of its height, a turned eye some of its width.
  const iris = (first: number) => Math.max(distance(at(first), at(first + 2)), distance(at(first + 1), at(first + 3)));
  const angle = rotation?.angle ?? { yaw: 0, pitch: 0, roll: 0 };
  return {
    left,
    right,
    irisPx: (iris(469) + iris(474)) / 2,
    yawDeg: degrees(angle.yaw),
    pitchDeg: degrees(angle.pitch),
    rollDeg: degrees(Math.atan2(left.y - right.y, left.x - right.x)),
    lids: { left: gap(159, 145, 33, 133), right: gap(386, 374, 263, 362) }
  };
}

function toPicture([x, y, width, height]: FaceResult['box'], part: PixelBox, longPx: number): PixelBox {
  const scale = Math.max(part.width, part.height) / longPx;
  return { x: part.x + x * scale, y: part.y + y * scale, width: width * scale, height: height * scale };
}
