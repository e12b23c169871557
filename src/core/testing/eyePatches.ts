/**
 * Eyes to measure: those of the photographs that ship inside `@vladmandic/face-api` (read from the package, never kept or shown;
 * `photographedEyes.json` has where their eyes are, as the detector found them, and which of them look sharp at 100%), and drawn ones from `renderedEyes.png`.
 * Blurred here by discs that are known.
 */
import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { dirname, join } from 'node:path';
import { group } from 'd3-array';
import jpeg from 'jpeg-js';
import { PNG } from 'pngjs';
import { encoded, linearOf } from '../simulation/sensor';
import { cubicWeight } from '../measure/enlarged';
import { eyePatchSide } from '../measure/eye';
import { luminanceOf } from '../measure/luminance';
import { makeReference, type Reference } from '../measure/makeReference';
import { afterJpeg } from './jpegLoss';
import photographed from './photographedEyes.json';
import rendered from './renderedEyes.json';

export interface Eye {
  /** Whose it is: both eyes of one face are one person's. */
  readonly person: string;
  readonly kind: 'photographed' | 'rendered';
  readonly eyesPx: number;
  readonly rollDeg: number;
  /** Linear light about it, `room` × `room`: more than is measured, so that blur has something to come from. */
  readonly light: Float32Array;
  readonly room: number;
  /** What is measured in the middle. */
  readonly side: number;
}

interface Picture {
  readonly width: number;
  readonly height: number;
  readonly rgba: Uint8Array;
}

const margin = 20;

function cut(picture: Picture, x: number, y: number, room: number): Float32Array | null {
  const [left, top] = [Math.round(x - room / 2), Math.round(y - room / 2)];
  if (left < 0 || top < 0 || left + room > picture.width || top + room > picture.height) return null;
  // Only what is wanted is made light of: a photograph is large.
  const own = new Uint8Array(room * room * 4);
  for (let row = 0; row < room; row++) {
    const from = ((top + row) * picture.width + left) * 4;
    own.set(picture.rgba.subarray(from, from + room * 4), row * room * 4);
  }
  return luminanceOf(own);
}

function folder(): string {
  return dirname(createRequire(import.meta.url).resolve('@vladmandic/face-api/package.json'));
}

/** Read once. */
let photographedOnce: readonly Eye[] | undefined;
export const photographedEyes = (): readonly Eye[] => (photographedOnce ??= readPhotographed());

function readPhotographed(): Eye[] {
  const pictures = new Map<string, Picture>();
  return photographed.flatMap((face, index): Eye[] => {
    let picture = pictures.get(face.file);
    if (!picture) {
      const bytes = readFileSync(join(folder(), 'demo', face.file));
      const { width, height, data } = jpeg.decode(bytes, { useTArray: true, maxMemoryUsageInMB: 1024 });
      pictures.set(face.file, (picture = { width, height, rgba: data }));
    }
    const from = picture;
    const [[lx = 0, ly = 0], [rx = 0, ry = 0]] = [face.left, face.right];
    const eyesPx = Math.hypot(lx - rx, ly - ry);
    const side = eyePatchSide(eyesPx);
    const all = { left: [lx, ly], right: [rx, ry] } as const;
    return face.sharp.flatMap((which): Eye[] => {
      const [x, y] = all[which as 'left' | 'right'];
      const light = cut(from, x, y, side + 2 * margin);
      return light
        ? [
            {
              person: `p${index}`,
              kind: 'photographed',
              eyesPx,
              rollDeg: face.rollDeg,
              light,
              room: side + 2 * margin,
              side
            }
          ]
        : [];
    });
  });
}

/** The patches of `renderedEyes.png` stand in a row, each as wide as the file is high. */
let renderedOnce: readonly Eye[] | undefined;
export const renderedEyes = (): readonly Eye[] => (renderedOnce ??= readRendered());

function readRendered(): Eye[] {
  const png = PNG.sync.read(readFileSync(join(import.meta.dirname, 'renderedEyes.png')));
  const room = png.height;
  return rendered.flatMap(({ person, eyesPx, rollDeg }, index): Eye[] => {
    const all = { width: png.width, height: png.height, rgba: png.data };
    const own = cut(all, index * room + room / 2, room / 2, room);
    return own ? [{ person, kind: 'rendered', eyesPx, rollDeg, light: own, room, side: room - 2 * margin }] : [];
  });
}

export interface Degraded {
  /** Diameter of the disc, pixels. */
  readonly disc: number;
  /** A rim brighter than the middle by this share, 0 for an even disc. */
  readonly rim?: number;
  /** Standard deviation of noise at middle grey, in light. */
  readonly noise?: number;
  readonly normal?: () => number;
  /** JPEG, 1 to 100. */
  readonly quality?: number;
  /** Unsharp mask: its amount, over about two pixels. */
  readonly sharpen?: number;
  /** Through a camera's own steps, a mosaic, demosaicing, mild noise reduction, and sharpening by this amount. */
  readonly camera?: number;
  /** A smear: its length in pixels and its angle. */
  readonly smear?: { readonly px: number; readonly angle: number };
}

/** Where light goes: offsets with their weights, which sum to one. */
function kernel({ disc, rim = 0, smear }: Degraded): { x: number; y: number; weight: number }[] {
  const parts: { x: number; y: number; weight: number }[] = [];
  const count = disc > 0 ? Math.max(60, Math.ceil(disc * disc * 6)) : 1;
  const along = smear ? Math.max(2, Math.ceil(smear.px * 3)) : 1;
  for (let index = 0; index < count; index++) {
    // Evenly over the disc, on a spiral (Vogel 1979).
    const radius = disc > 0 ? (disc / 2) * Math.sqrt((index + 0.5) / count) : 0;
    const turn = index * 2.399963;
    const weight = 1 + rim * (2 * (index / count) - 1);
    for (let step = 0; step < along; step++) {
      const shift = smear ? ((step + 0.5) / along - 0.5) * smear.px : 0;
      parts.push({
        x: radius * Math.cos(turn) + shift * Math.cos(smear?.angle ?? 0),
        y: radius * Math.sin(turn) + shift * Math.sin(smear?.angle ?? 0),
        weight
      });
    }
  }
  // On whole pixels, between four of them.
  const grid = new Map<string, { x: number; y: number; weight: number }>();
  const all = parts.reduce((sum, { weight }) => sum + weight, 0);
  for (const { x, y, weight } of parts) {
    const [left, top] = [Math.floor(x), Math.floor(y)];
    for (const [dx, dy] of [
      [0, 0],
      [1, 0],
      [0, 1],
      [1, 1]
    ] as const) {
      const share = (dx ? x - left : 1 - (x - left)) * (dy ? y - top : 1 - (y - top));
      const key = `${left + dx} ${top + dy}`;
      const there = grid.get(key) ?? { x: left + dx, y: top + dy, weight: 0 };
      there.weight += (share * weight) / all;
      grid.set(key, there);
    }
  }
  return [...grid.values()].filter(({ weight }) => weight > 1e-6);
}

/** The patch as a camera with that disc, noise and file would have it, `side` × `side`. */
export function degrade(eye: Eye, how: Degraded): Float32Array {
  const { room, side, light } = eye;
  const parts = kernel(how);
  const reach = Math.ceil(Math.max(...parts.map(({ x, y }) => Math.max(Math.abs(x), Math.abs(y)))));
  if (reach > margin - 2) throw new RangeError('That disc reaches beyond the patch.');
  const wide = side + 4;
  const from = (room - wide) / 2;
  let out: Float32Array = new Float32Array(wide * wide);
  for (let y = 0; y < wide; y++)
    for (let x = 0; x < wide; x++) {
      let sum = 0;
      for (const part of parts) sum += part.weight * (light[(from + y + part.y) * room + from + x + part.x] ?? 0);
      out[y * wide + x] = sum;
    }
  const { noise = 0, normal, sharpen = 0, quality } = how;
  if (noise > 0 && normal)
    out = out.map((value) => Math.max(0, value + noise * Math.sqrt(Math.max(value, 0.01) / 0.18) * normal()));
  if (how.camera !== undefined) out = sharpened(smoothed(demosaiced(out, wide), wide), wide, how.camera);
  if (sharpen > 0) out = sharpened(out, wide, sharpen);
  if (quality !== undefined) out = asJpeg(out, wide, quality);
  const result = new Float32Array(side * side);
  for (let y = 0; y < side; y++) for (let x = 0; x < side; x++) result[y * side + x] = out[(y + 2) * wide + x + 2] ?? 0;
  return result;
}

/** A grey scene behind a Bayer mosaic, its missing colours as the mean of their neighbours, and the luminance of that (weights of Rec. 709). */
function demosaiced(light: Float32Array, wide: number): Float32Array {
  const inside = (at: number) => Math.min(wide - 1, Math.max(0, at));
  const value = (x: number, y: number) => light[inside(y) * wide + inside(x)] ?? 0;
  const colourAt = (x: number, y: number) => ((x + y) % 2 === 1 ? 1 : y % 2 === 0 ? 0 : 2);
  const weights = [0.2126, 0.7152, 0.0722] as const;
  const out = new Float32Array(wide * wide);
  for (let y = 0; y < wide; y++)
    for (let x = 0; x < wide; x++)
      for (const [colour, weight] of weights.entries()) {
        if (colourAt(x, y) === colour) {
          out[y * wide + x] = (out[y * wide + x] ?? 0) + weight * value(x, y);
          continue;
        }
        let [sum, count] = [0, 0];
        for (let dy = -1; dy <= 1; dy++)
          for (let dx = -1; dx <= 1; dx++)
            if (colourAt(x + dx + 2, y + dy + 2) === colour) {
              sum += value(x + dx, y + dy);
              count++;
            }
        out[y * wide + x] = (out[y * wide + x] ?? 0) + (weight * sum) / count;
      }
  return out;
}

/** Mild noise reduction: neighbours count less the more they differ (bilateral, Tomasi and Manduchi 1998). */
function smoothed(light: Float32Array, wide: number): Float32Array {
  const at = (x: number, y: number) =>
    light[Math.min(wide - 1, Math.max(0, y)) * wide + Math.min(wide - 1, Math.max(0, x))] ?? 0;
  return Float32Array.from(light, (own, index) => {
    const [x, y] = [index % wide, Math.floor(index / wide)];
    const tolerance = 0.02 * Math.sqrt(Math.max(own, 0.01) / 0.18);
    let [sum, all] = [0, 0];
    for (let dy = -1; dy <= 1; dy++)
      for (let dx = -1; dx <= 1; dx++) {
        const other = at(x + dx, y + dy);
        const weight = Math.exp(-(dx * dx + dy * dy) / 0.9 - 0.5 * ((other - own) / tolerance) ** 2);
        sum += weight * other;
        all += weight;
      }
    return sum / all;
  });
}

/** As cameras do: on encoded values, against a blur of nine pixels. */
function sharpened(light: Float32Array, wide: number, amount: number): Float32Array {
  const values = light.map((value) => encoded(Math.min(1, Math.max(0, value))));
  const at = (x: number, y: number) =>
    values[Math.min(wide - 1, Math.max(0, y)) * wide + Math.min(wide - 1, Math.max(0, x))] ?? 0;
  const bytes = new Uint8Array(wide * wide * 4);
  for (let y = 0; y < wide; y++)
    for (let x = 0; x < wide; x++) {
      let blur = 0;
      for (let dy = -1; dy <= 1; dy++)
        for (let dx = -1; dx <= 1; dx++) blur += (at(x + dx, y + dy) * (dx === 0 ? 2 : 1) * (dy === 0 ? 2 : 1)) / 16;
      const value = at(x, y) + amount * (at(x, y) - blur);
      bytes.fill(Math.round(255 * Math.min(1, Math.max(0, value))), (y * wide + x) * 4, (y * wide + x) * 4 + 4);
    }
  return luminanceOf(bytes);
}

function asJpeg(light: Float32Array, wide: number, quality: number): Float32Array {
  const bytes = Uint8ClampedArray.from(light, (value) => 255 * encoded(Math.min(1, Math.max(0, value))));
  return Float32Array.from(afterJpeg(bytes, wide, quality), (value) => linearOf(value / 255));
}

interface Sharp extends Eye {
  readonly weight: number;
}
let sharpOnce: readonly { readonly eye: Eye; readonly sharp: Sharp }[] | undefined;

/** Every eye as it is, for a reference; both kinds count alike. */
export function sharpEyes(but: (eye: Eye) => boolean = () => false): Sharp[] {
  const [real, drawn] = [photographedEyes(), renderedEyes()];
  const weightOf = { photographed: 1, rendered: real.length / drawn.length };
  sharpOnce ??= [...real, ...drawn].map((eye) => ({
    eye,
    sharp: { ...eye, light: degrade(eye, { disc: 0 }), weight: weightOf[eye.kind] }
  }));
  return sharpOnce.flatMap(({ eye, sharp }) => (but(eye) ? [] : [sharp]));
}

/** As a lens so many times shorter would show it: each pixel the mean of several; measured in 32. */
export function smallerEye(eye: Eye, times: number): Eye {
  const room = Math.floor(eye.room / times);
  const light = new Float32Array(room * room);
  for (let y = 0; y < room; y++)
    for (let x = 0; x < room; x++) {
      let sum = 0;
      for (let dy = 0; dy < times; dy++)
        for (let dx = 0; dx < times; dx++) sum += eye.light[(y * times + dy) * eye.room + x * times + dx] ?? 0;
      light[y * room + x] = sum / (times * times);
    }
  return { ...eye, light, room, eyesPx: eye.eyesPx / times, side: 32 };
}

const references = new Map<string, Reference>();
/** What is expected of an eye whose person is a stranger: everybody's but theirs. Made once for each. */
export function referenceWithout({ kind, person }: Pick<Eye, 'kind' | 'person'>): Reference {
  const key = `${kind} ${person}`;
  const known =
    references.get(key) ?? makeReference(sharpEyes((other) => other.kind === kind && other.person === person));
  references.set(key, known);
  return known;
}

/** The same eye in another frame: the head a little elsewhere, turned and nearer. Interpolated by cubic splines. */
export function inAnotherFrame(
  eye: Eye,
  { x, y, rollDeg, scale }: { readonly x: number; readonly y: number; readonly rollDeg: number; readonly scale: number }
): Eye {
  const { room, light: from } = eye;
  const [cos, sin] = [Math.cos((rollDeg * Math.PI) / 180) / scale, Math.sin((rollDeg * Math.PI) / 180) / scale];
  const middle = (room - 1) / 2;
  const at = (column: number, row: number) =>
    from[Math.min(room - 1, Math.max(0, row)) * room + Math.min(room - 1, Math.max(0, column))] ?? 0;
  const weights = (t: number) => [-1, 0, 1, 2].map((step) => cubicWeight(t - step));
  const light = new Float32Array(room * room);
  for (let row = 0; row < room; row++)
    for (let column = 0; column < room; column++) {
      const [dx, dy] = [column - middle - x, row - middle - y];
      const [u, v] = [middle + cos * dx + sin * dy, middle - sin * dx + cos * dy];
      const [left, top] = [Math.floor(u), Math.floor(v)];
      const [across, down] = [weights(u - left), weights(v - top)];
      let sum = 0;
      for (let j = 0; j < 4; j++)
        for (let i = 0; i < 4; i++) sum += (across[i] ?? 0) * (down[j] ?? 0) * at(left + i - 1, top + j - 1);
      light[row * room + column] = Math.max(0, sum);
    }
  return { ...eye, light, eyesPx: eye.eyesPx * scale, rollDeg: eye.rollDeg + rollDeg };
}

/** Behind glasses: a dark rim about the eye, as frames lie. */
export function behindGlasses(eye: Eye, random: () => number): Eye {
  const { room, eyesPx, rollDeg } = eye;
  const [across, down] = [eyesPx * (0.36 + 0.06 * random()), eyesPx * (0.24 + 0.08 * random())];
  const [wide, bright] = [eyesPx * (0.025 + 0.03 * random()), 0.02 + 0.1 * random()];
  const middle = { x: room / 2 + eyesPx * 0.06 * (random() - 0.5), y: room / 2 + eyesPx * (0.03 + 0.05 * random()) };
  const [cos, sin] = [Math.cos((rollDeg * Math.PI) / 180), Math.sin((rollDeg * Math.PI) / 180)];
  const light = eye.light.map((value, index) => {
    const [dx, dy] = [(index % room) - middle.x, Math.floor(index / room) - middle.y];
    const off = Math.abs(Math.hypot((dx * cos + dy * sin) / across, (dy * cos - dx * sin) / down) - 1);
    const rim = Math.min(1, Math.max(0, wide / 2 - off * Math.min(across, down) + 0.5));
    return value * (1 - rim) + rim * bright;
  });
  return { ...eye, light };
}

/** A patch with more pixels, as programs that enlarge pictures make them (cubic), kept as JPEG again; its middle, `wanted` × `wanted`. */
export function enlargedPatch(
  light: Float32Array,
  side: number,
  { times, quality, wanted }: { readonly times: number; readonly quality: number; readonly wanted: number }
): Float32Array {
  const values = light.map((value) => encoded(Math.min(1, Math.max(0, value))));
  const wide = wanted + 4;
  const taps = Array.from({ length: wide }, (_, index) => {
    const at = side / 2 - 0.5 + (index - (wide - 1) / 2) / times;
    const first = Math.floor(at) - 1;
    return [0, 1, 2, 3].map((step) => ({
      pixel: Math.min(side - 1, Math.max(0, first + step)),
      weight: cubicWeight(at - first - step)
    }));
  });
  const out = new Float32Array(wide * wide);
  for (const [y, rows] of taps.entries())
    for (const [x, columns] of taps.entries()) {
      let sum = 0;
      for (const row of rows)
        for (const column of columns)
          sum += row.weight * column.weight * (values[row.pixel * side + column.pixel] ?? 0);
      out[y * wide + x] = linearOf(Math.min(1, Math.max(0, sum)));
    }
  const file = asJpeg(out, wide, quality);
  return Float32Array.from(
    { length: wanted * wanted },
    (_, at) => file[(Math.floor(at / wanted) + 2) * wide + (at % wanted) + 2] ?? 0
  );
}

/** Both eyes of each face. */
export const facesOf = (eyes: readonly Eye[]): Eye[][] => [
  ...group(eyes, ({ kind, person }) => `${kind} ${person}`).values()
];

/** Files as cameras write them: with noise and JPEG only (A), and through mosaic, demosaicing, mild noise reduction and sharpening (B). */
export const filesOf = (random: () => number) => ({
  A: (): Partial<Degraded> => ({ noise: 0.004 + 0.008 * random(), quality: 82 + Math.floor(15 * random()) }),
  B: (): Partial<Degraded> => ({
    noise: 0.004 + 0.008 * random(),
    quality: 88 + Math.floor(10 * random()),
    camera: 0.3 + 0.5 * random()
  })
});
