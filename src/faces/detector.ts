/**
 * Faces and eyes in pictures: the whole picture, then tiles for small faces, then a crop of each head for its eyes. Positions only:
 * nothing that says who somebody is, is asked for. Runs where nothing can be fetched: its files are handed over.
 */
import { Human, type Config, type FaceResult } from '@vladmandic/human';
import { merged, tilesOf, type Box, type Size } from './boxes';
import type { Weights } from './weights';

export interface Point {
  readonly x: number;
  readonly y: number;
}

export interface FoundFace {
  readonly box: Box;
  /** 0 to 1. */
  readonly score: number;
  /** The irises, pixels; left is the person's own left. */
  readonly left: Point;
  readonly right: Point;
  /** Turn of the head, degrees: positive to the picture's right; up; clockwise. */
  readonly yawDeg: number;
  readonly pitchDeg: number;
  readonly rollDeg: number;
  /** Gap of the lids over the eye's width, by eye. */
  readonly lids: { readonly left: number; readonly right: number };
}

/** Draws a part of the picture at a size: however it was decoded. */
export type DrawPart = (part: Box, size: Size) => ImageData;

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

  /** @param eyesPx how far apart eyes are expected in the picture, pixels; null when nothing is known */
  async find(size: Size, draw: DrawPart, eyesPx: number | null): Promise<FoundFace[]> {
    const whole = { x: 0, y: 0, ...size };
    const parts = [whole, ...tilesOf(size, eyesPx)];
    const boxes: { box: Box; score: number }[] = [];
    for (const part of parts) {
      for (const found of await this.#look(part, draw, lookPx, false))
        boxes.push({ box: toPicture(found.box, part, lookPx), score: found.score });
    }
    const faces: FoundFace[] = [];
    for (const { box, score } of merged(boxes)) {
      const found = await this.#eyes(box, score, size, draw);
      if (found) faces.push(found);
    }
    return faces;
  }

  /** The eyes of a face whose place is known, or of one somebody has pointed at. */
  async #eyes(box: Box, score: number, size: Size, draw: DrawPart): Promise<FoundFace | null> {
    const side = headRoom * Math.max(box.width, box.height);
    const middle = { x: box.x + box.width / 2, y: box.y + box.height / 2 };
    const part = { x: middle.x - side / 2, y: middle.y - side / 2, width: side, height: side };
    const found = await this.#look(part, draw, headPx, true);
    const nearest = found
      .filter((item) => item.mesh.length > 468)
      .map((item) => ({ item, off: Math.hypot(...offMiddle(item)) }))
      .sort((a, b) => a.off - b.off)[0];
    if (!nearest || nearest.off > headPx / 4) return null;
    const { item } = nearest;
    const at = (index: number): Point => {
      const [x = NaN, y = NaN] = item.mesh[index] ?? [];
      return { x: part.x + (x / headPx) * side, y: part.y + (y / headPx) * side };
    };
    // The mesh's irises, as the person has them.
    const [left, right] = [at(468), at(473)];
    if (![left, right].every(({ x, y }) => x >= 0 && y >= 0 && x < size.width && y < size.height)) return null;
    const gap = (upper: number, lower: number, outer: number, inner: number) =>
      distance(at(upper), at(lower)) / Math.max(distance(at(outer), at(inner)), 1e-6);
    const angle = item.rotation?.angle ?? { yaw: 0, pitch: 0, roll: 0 };
    const degrees = (radians: number) => (radians * 180) / Math.PI;
    return {
      box,
      score,
      left,
      right,
      yawDeg: degrees(angle.yaw),
      pitchDeg: degrees(angle.pitch),
      rollDeg: degrees(Math.atan2(left.y - right.y, left.x - right.x)),
      lids: { left: gap(159, 145, 33, 133), right: gap(386, 374, 263, 362) }
    };
  }

  async #look(part: Box, draw: DrawPart, longPx: number, withEyes: boolean): Promise<FaceResult[]> {
    const long = Math.max(part.width, part.height);
    const drawn = draw(part, {
      width: Math.max(8, Math.round((part.width / long) * longPx)),
      height: Math.max(8, Math.round((part.height / long) * longPx))
    });
    const tensor = this.#human.tf.browser.fromPixels(drawn);
    const input = this.#human.tf.expandDims(tensor, 0);
    try {
      const result = await this.#human.detect(input as Parameters<Human['detect']>[0], {
        face: face(withEyes, withEyes ? 4 : mostFaces)
      });
      return result.face;
    } finally {
      tensor.dispose();
      input.dispose();
    }
  }
}

const distance = (a: Point, b: Point): number => Math.hypot(a.x - b.x, a.y - b.y);

const offMiddle = ({ box: [x, y, width, height] }: FaceResult): [number, number] => [
  x + width / 2 - headPx / 2,
  y + height / 2 - headPx / 2
];

function toPicture([x, y, width, height]: FaceResult['box'], part: Box, longPx: number): Box {
  const scale = Math.max(part.width, part.height) / longPx;
  return { x: part.x + x * scale, y: part.y + y * scale, width: width * scale, height: height * scale };
}
