/** Surfaces painted at the size of their detail: what the lens may wipe out. Everything is drawn from made-up marks. */
import { CanvasTexture, LinearMipmapNearestFilter, RepeatWrapping, SRGBColorSpace, type Texture } from 'three';
import type { Surface } from '../../core/setup/backgroundKinds';

export interface Painted {
  readonly texture: Texture;
  /** What one tile measures in the scene, mm. */
  readonly widthMm: number;
  readonly heightMm: number;
  /** Has holes one sees through. */
  readonly cut: boolean;
}

const sizePx = 1024;
/** Drawn px of one detail. */
const detailPx = 15;

/** Painted in plain memory: thousands of small paths go to the graphics one by one otherwise, which takes seconds where these are software. */
const inMemory = { willReadFrequently: true } as const;

type Context = OffscreenCanvasRenderingContext2D;
type Random = () => number;

/** Numbers that are always the same (Park and Miller, 1988). */
export function sequence(seed: number): Random {
  let state = (seed % 2147483646) + 1;
  return () => {
    state = (state * 48271) % 2147483647;
    return state / 2147483647;
  };
}

const hsl = (h: number, s: number, l: number, a = 1) => `hsl(${h} ${s}% ${l}% / ${a})`;

function leaf(g: Context, x: number, y: number, length: number, angle: number, fill: string, rib: string) {
  g.save();
  g.translate(x, y);
  g.rotate(angle);
  g.beginPath();
  g.moveTo(-length / 2, 0);
  g.quadraticCurveTo(0, -length * 0.28, length / 2, 0);
  g.quadraticCurveTo(0, length * 0.28, -length / 2, 0);
  g.fillStyle = fill;
  g.fill();
  g.strokeStyle = rib;
  g.lineWidth = Math.max(0.7, length * 0.035);
  g.beginPath();
  g.moveTo(-length / 2, 0);
  g.lineTo(length / 2, 0);
  g.stroke();
  g.restore();
}

/** Runs a drawing so that what leaves the tile at one edge comes in at the other. */
function tiled(x: number, y: number, margin: number, draw: (x: number, y: number) => void) {
  for (const dx of x < margin ? [0, sizePx] : x > sizePx - margin ? [0, -sizePx] : [0])
    for (const dy of y < margin ? [0, sizePx] : y > sizePx - margin ? [0, -sizePx] : [0]) draw(x + dx, y + dy);
}

function foliage(g: Context, random: Random) {
  g.fillStyle = '#131c12';
  g.fillRect(0, 0, sizePx, sizePx);
  for (let n = 0; n < 5200; n++) {
    const depth = n / 5200;
    const length = detailPx * (0.8 + random() * 1.5) * (0.7 + depth * 0.6);
    const light = 9 + depth * 22 + (random() < 0.07 ? 22 : 0) + random() * 8;
    const hue = 82 + random() * 52;
    const angle = random() * Math.PI * 2;
    tiled(random() * sizePx, random() * sizePx, length, (x, y) =>
      leaf(g, x, y, length, angle, hsl(hue, 22 + random() * 18, light), hsl(hue, 26, light + 9))
    );
  }
}

/** Bark in rings, trunk beside trunk with gaps between. */
function trunks(g: Context, random: Random, pxPerMm: number) {
  let x = 20;
  while (x < sizePx - 60) {
    const width = (170 + random() * 130) * pxPerMm;
    if (x + width > sizePx - 10) break;
    const shade = g.createLinearGradient(x, 0, x + width, 0);
    for (const [at, light] of [
      [0, 10],
      [0.3, 34],
      [0.55, 27],
      [1, 7]
    ] as const)
      shade.addColorStop(at, hsl(30, 16, light));
    g.fillStyle = shade;
    g.fillRect(x, 0, width, sizePx);
    for (let y = 0; y < sizePx; y += detailPx * (0.7 + random() * 0.5)) {
      g.strokeStyle = hsl(28, 22, 6 + random() * 8, 0.8);
      g.lineWidth = detailPx * 0.14;
      g.beginPath();
      g.moveTo(x, y);
      g.quadraticCurveTo(x + width / 2, y + detailPx * (0.4 + random() * 0.5), x + width, y);
      g.stroke();
      for (let n = 0; n < width / detailPx; n++) {
        g.fillStyle = hsl(32, 20, 20 + random() * 30, 0.55);
        g.fillRect(
          x + random() * width,
          y + random() * detailPx * 0.6,
          detailPx * 0.14,
          detailPx * (0.25 + random() * 0.4)
        );
      }
    }
    x += width + (260 + random() * 500) * pxPerMm;
  }
}

function panes(g: Context, random: Random) {
  const pane = sizePx / Math.round(sizePx / (detailPx * 2.4));
  for (let y = 0; y < sizePx; y += pane)
    for (let x = 0; x < sizePx; x += pane) {
      g.fillStyle = hsl(196 + random() * 26, 16, 58 + random() * 24);
      g.fillRect(x, y, pane, pane);
      if (random() < 0.3) {
        g.fillStyle = hsl(120, 18, 38, 0.4);
        g.beginPath();
        g.ellipse(x + pane * random(), y + pane, pane * 0.6, pane * (0.4 + random() * 0.6), 0, 0, 7);
        g.fill();
      }
    }
  g.strokeStyle = '#20282a';
  g.lineWidth = pane * 0.14;
  for (let at = 0; at <= sizePx; at += pane) {
    g.beginPath();
    g.moveTo(at, 0);
    g.lineTo(at, sizePx);
    g.moveTo(0, at);
    g.lineTo(sizePx, at);
    g.stroke();
  }
}

function brick(g: Context, random: Random) {
  g.fillStyle = '#8d857a';
  g.fillRect(0, 0, sizePx, sizePx);
  const high = sizePx / Math.round(sizePx / detailPx);
  const wide = sizePx / Math.round(sizePx / (high * 3));
  for (let row = 0; row * high < sizePx; row++)
    for (let x = row % 2 === 0 ? 0 : -wide / 2; x < sizePx; x += wide) {
      g.fillStyle = hsl(12 + random() * 10, 34 + random() * 12, 26 + random() * 16);
      g.fillRect(x + 1, row * high + 1, wide - 2, high - 2);
    }
}

const signWords = ['FERNHALL', 'PALM HOUSE', 'EST. 1871', 'NORTH STAIR', 'ORCHIDS', 'TEA ROOM', 'NAVE'];

function lettering(g: Context, random: Random) {
  g.fillStyle = '#e3ddcd';
  g.fillRect(0, 0, sizePx, sizePx);
  g.fillStyle = '#222a2c';
  const line = detailPx * 1.9;
  for (let y = line; y < sizePx; y += line) {
    g.font = `700 ${detailPx * 1.35}px sans-serif`;
    let x = -random() * 60;
    while (x < sizePx) {
      const word = signWords[Math.floor(random() * signWords.length)] as string;
      g.fillText(word, x, y);
      x += g.measureText(word).width + detailPx;
    }
  }
}

function plaster(g: Context, random: Random) {
  g.fillStyle = '#9d9a94';
  g.fillRect(0, 0, sizePx, sizePx);
  for (let n = 0; n < 9000; n++) {
    g.fillStyle = hsl(40, 6, 45 + random() * 30, 0.16);
    const r = detailPx * (0.2 + random());
    tiled(random() * sizePx, random() * sizePx, r, (x, y) => {
      g.beginPath();
      g.ellipse(x, y, r, r * (0.4 + random() * 0.6), random() * 3, 0, 7);
      g.fill();
    });
  }
}

function ironwork(g: Context, x: number, y: number, r: number) {
  g.beginPath();
  g.arc(x, y, r, 0, 7);
  g.stroke();
  g.beginPath();
  g.arc(x, y, r * 0.45, 0, 7);
  g.stroke();
  for (let n = 0; n < 4; n++) {
    const a = (n * Math.PI) / 2 + Math.PI / 4;
    g.beginPath();
    g.moveTo(x + Math.cos(a) * r * 0.45, y + Math.sin(a) * r * 0.45);
    g.lineTo(x + Math.cos(a) * r, y + Math.sin(a) * r);
    g.stroke();
  }
}

/** One arch, drawn once over its own span: not a tile. */
function arch(g: Context, _random: Random, pxPerMm: number, detailMm: number) {
  const r = (detailMm * pxPerMm) / 2;
  g.strokeStyle = '#1a2422';
  g.fillStyle = '#1a2422';
  const outer = sizePx * 0.47;
  const inner = outer - r * 2.3;
  const cx = sizePx / 2;
  const cy = sizePx * 0.5;
  g.lineWidth = Math.max(2, r * 0.5);
  for (const radius of [outer, inner]) {
    g.beginPath();
    g.moveTo(cx - radius, sizePx);
    g.lineTo(cx - radius, cy);
    g.arc(cx, cy, radius, Math.PI, 0);
    g.lineTo(cx + radius, sizePx);
    g.stroke();
  }
  g.lineWidth = Math.max(1, r * 0.2);
  const middle = (outer + inner) / 2;
  const steps = Math.max(8, Math.floor((Math.PI * middle) / (r * 2.1)));
  for (let n = 0; n <= steps; n++) {
    const a = Math.PI + (Math.PI * n) / steps;
    ironwork(g, cx + Math.cos(a) * middle, cy + Math.sin(a) * middle, r);
  }
  for (let y = cy + r * 2; y < sizePx; y += r * 2.1) for (const side of [-1, 1]) ironwork(g, cx + side * middle, y, r);
}

function columns(g: Context, _random: Random, pxPerMm: number, detailMm: number) {
  const width = Math.min(sizePx * 0.2, Math.max(110 * pxPerMm, detailMm * pxPerMm));
  const x = sizePx / 2 - width / 2;
  const shade = g.createLinearGradient(x, 0, x + width, 0);
  for (const [at, light] of [
    [0, 12],
    [0.3, 40],
    [0.6, 26],
    [1, 9]
  ] as const)
    shade.addColorStop(at, hsl(160, 8, light));
  g.fillStyle = shade;
  g.fillRect(x, 0, width, sizePx);
  g.strokeStyle = hsl(160, 10, 12, 0.7);
  g.lineWidth = Math.max(1, width * 0.04);
  for (let n = 1; n < 6; n++) {
    g.beginPath();
    g.moveTo(x + (width * n) / 6, 0);
    g.lineTo(x + (width * n) / 6, sizePx);
    g.stroke();
  }
  for (const y of [sizePx * 0.16, sizePx * 0.22, sizePx * 0.9]) {
    g.fillStyle = hsl(160, 8, 22);
    g.fillRect(x - width * 0.25, y, width * 1.5, width * 0.34);
  }
}

/** Sky, a far shore with masts, and water: once across the frame. */
function horizon(g: Context, random: Random, pxPerMm: number, detailMm: number) {
  const line = sizePx * 0.52;
  const sky = g.createLinearGradient(0, 0, 0, line);
  sky.addColorStop(0, '#93a9bd');
  sky.addColorStop(1, '#dfe3e1');
  g.fillStyle = sky;
  g.fillRect(0, 0, sizePx, line);
  g.fillStyle = '#69757a';
  g.beginPath();
  g.moveTo(0, line);
  for (let x = 0; x <= sizePx; x += 16) g.lineTo(x, line - 26 - 16 * Math.sin(x * 0.011 + 1) - 9 * Math.sin(x * 0.031));
  g.lineTo(sizePx, line);
  g.fill();
  const unit = Math.max(3, detailMm * pxPerMm);
  for (let x = 0; x < sizePx; x += unit * (1.4 + random())) {
    const high = unit * (0.8 + random() * 2.2);
    g.fillStyle = hsl(20 + random() * 30, 18, 38 + random() * 30);
    g.fillRect(x, line - high * 0.7, unit, high * 0.7);
    if (random() < 0.4) {
      g.fillStyle = '#3d4143';
      g.fillRect(x, line - high * 2.6, Math.max(1.4, unit * 0.1), high * 2.6);
    }
  }
  const water = g.createLinearGradient(0, line, 0, sizePx);
  water.addColorStop(0, '#a9b6ba');
  water.addColorStop(1, '#4d626b');
  g.fillStyle = water;
  g.fillRect(0, line, sizePx, sizePx - line);
  for (let n = 0; n < 900; n++) {
    const y = line + (sizePx - line) * random() ** 1.6;
    const far = (y - line) / (sizePx - line);
    g.fillStyle = hsl(200, 14, random() < 0.5 ? 82 : 34, 0.35);
    g.fillRect(random() * sizePx, y, (6 + 50 * far) * random(), 1 + 2.5 * far);
  }
}

interface Brush {
  readonly paint: (g: Context, random: Random, pxPerMm: number, detailMm: number) => void;
  readonly cut: boolean;
  /** Fixed width of the painting, mm; else it follows from the detail. */
  readonly widthMm?: number;
}

const brushes: Readonly<Record<Exclude<Surface, 'lights' | 'candles' | 'people'>, Brush>> = {
  plain: { paint: plaster, cut: false },
  foliage: { paint: foliage, cut: false },
  trunks: { paint: trunks, cut: true, widthMm: 3600 },
  arch: { paint: arch, cut: true, widthMm: 3400 },
  columns: { paint: columns, cut: true, widthMm: 1500 },
  panes: { paint: panes, cut: false },
  brick: { paint: brick, cut: false },
  lettering: { paint: lettering, cut: false },
  horizon: { paint: horizon, cut: false, widthMm: 40_000 }
};

export type PaintedSurface = keyof typeof brushes;

const painted = new Map<string, Painted>();
const mostKept = 24;

/** A surface whose detail measures `detailMm`. */
export function paint(surface: PaintedSurface, detailMm: number): Painted {
  const { paint: brush, cut, widthMm: fixed } = brushes[surface];
  const key = `${surface} ${Math.round(Math.log2(Math.max(0.5, detailMm)) * 8)}`;
  const known = painted.get(key);
  if (known) {
    // The latest used stands last, so that what is on the screen is never let go.
    painted.delete(key);
    painted.set(key, known);
    return known;
  }
  const canvas = new OffscreenCanvas(sizePx, sizePx);
  const g = canvas.getContext('2d', inMemory);
  if (!g) throw new Error('Nothing can be painted here.');
  const widthMm = fixed ?? (sizePx / detailPx) * detailMm;
  brush(g, sequence(11 + surface.length), sizePx / widthMm, detailMm);
  const texture = new CanvasTexture(canvas);
  texture.colorSpace = SRGBColorSpace;
  texture.wrapS = RepeatWrapping;
  texture.wrapT = RepeatWrapping;
  texture.minFilter = LinearMipmapNearestFilter;
  const made: Painted = { texture, widthMm, heightMm: widthMm, cut };
  if (painted.size >= mostKept) {
    const [oldest] = painted;
    if (oldest) {
      oldest[1].texture.dispose();
      painted.delete(oldest[0]);
    }
  }
  painted.set(key, made);
  return made;
}

/** The floor of a scenery, by the tile. */
export function paintFloor(scenery: 'plain' | 'palmHouse' | 'bandstand'): Painted {
  const key = `floor ${scenery}`;
  const known = painted.get(key);
  if (known) return known;
  const canvas = new OffscreenCanvas(512, 512);
  const g = canvas.getContext('2d', inMemory);
  if (!g) throw new Error('Nothing can be painted here.');
  const random = sequence(5);
  if (scenery === 'palmHouse') {
    for (let y = 0; y < 8; y++)
      for (let x = 0; x < 8; x++) {
        g.fillStyle = (x + y) % 2 === 0 ? hsl(34, 26, 58 + random() * 8) : hsl(16, 16, 17 + random() * 6);
        g.fillRect(x * 64, y * 64, 63, 63);
      }
  } else if (scenery === 'bandstand') {
    for (let x = 0; x < 8; x++) {
      g.fillStyle = hsl(28, 22, 34 + random() * 10);
      g.fillRect(x * 64, 0, 62, 512);
      for (let n = 0; n < 20; n++) {
        g.fillStyle = hsl(26, 20, 24 + random() * 12, 0.4);
        g.fillRect(x * 64 + random() * 60, random() * 512, 1.5, 60 + random() * 200);
      }
    }
  } else {
    g.fillStyle = '#8b8884';
    g.fillRect(0, 0, 512, 512);
    for (let n = 0; n < 2500; n++) {
      g.fillStyle = hsl(40, 5, 45 + random() * 18, 0.25);
      g.fillRect(random() * 512, random() * 512, 3, 3);
    }
  }
  const texture = new CanvasTexture(canvas);
  texture.colorSpace = SRGBColorSpace;
  texture.wrapS = RepeatWrapping;
  texture.wrapT = RepeatWrapping;
  texture.minFilter = LinearMipmapNearestFilter;
  const made: Painted = { texture, widthMm: 1600, heightMm: 1600, cut: false };
  painted.set(key, made);
  return made;
}
