/** A sheet as a drawing: what prints it, and what saves it as SVG, know nothing of sheets. */
import { encoded } from '../simulation/sensor';
import type { Drawing, Mark, Paint } from '../paper/primitives';
import { mmPerInch } from '../units/conversions';
import type { SheetPage } from './pages';
import type { Polygon } from './sheets';

/** A drawing's units a mm: CSS px, 96 an inch. */
const perMm = 96 / mmPerInch;
/** Polygons in one path: readers of PDF, and those who write it, have limits of their own. */
const mostInPath = 300;

const short = (value: number) => String(Number((value * perMm).toFixed(3)));

/** What a screen or printer is told to make of so much light (sRGB). */
function greyOf(light: number): Paint {
  const byte = Math.round(255 * encoded(light)).toString(16);
  return `#${byte.padStart(2, '0').repeat(3)}`;
}

/** Neighbours of one tone together: what comes later lies over what came before. */
function byTone(polygons: readonly Polygon[]): Polygon[][] {
  const groups: Polygon[][] = [];
  for (const polygon of polygons) {
    const last = groups[groups.length - 1];
    if (last && last[0]?.tone === polygon.tone && last.length < mostInPath) last.push(polygon);
    else groups.push([polygon]);
  }
  return groups;
}

export function sheetDrawing({ width, height, title, pieces, texts, lines }: SheetPage): Drawing {
  const shapes = pieces.flatMap(({ piece, x, y }) =>
    byTone(piece.polygons).map((polygons): Mark => ({
      kind: 'path',
      fill: greyOf(polygons[0]?.tone ?? 0),
      // All turn the same way, so that where they overlap they are one.
      d: polygons
        .map(({ points }) => `M${points.map(([u, v]) => `${short(x + u)} ${short(y + v)}`).join('L')}Z`)
        .join('')
    }))
  );
  const strokes = lines.map(({ from, to, cut }): Mark => ({
    kind: 'path',
    stroke: 'ink',
    width: 1,
    d: `M${short(from[0])} ${short(from[1])}L${short(to[0])} ${short(to[1])}`,
    ...(cut ? { dash: [8, 8] } : {})
  }));
  const words = texts.map(({ x, y, size, text, bold = false, middle = false }): Mark => ({
    kind: 'text',
    tone: 'ink',
    text,
    strong: bold,
    anchor: middle ? 'middle' : 'start',
    x: x * perMm,
    y: y * perMm,
    size: Number(short(size))
  }));
  return { width: width * perMm, height: height * perMm, title, marks: [...shapes, ...strokes, ...words] };
}
