/** A drawing as a file of SVG: one that stands alone, with no script, style sheet or font of its own. */
import { colourOf, tones, type Drawing, type Mark } from './primitives';

const escapes: Readonly<Record<string, string>> = { '&': '&amp;', '<': '&lt;', '>': '&gt;', '"': '&quot;' };
/** Safe between tags and in attributes; characters XML does not allow are left out. */
const escaped = (text: string): string =>
  text
    .replaceAll(/[^\t\n\r\u0020-\uD7FF\uE000-\uFFFD\u{10000}-\u{10FFFF}]/gu, '')
    .replaceAll(/[&<>"]/g, (character) => escapes[character] ?? '');

/** Attributes as they are given; those that are undefined are left out. */
function attributes(values: Readonly<Record<string, string | number | undefined>>): string {
  return Object.entries(values)
    .flatMap(([key, value]) => (value === undefined ? [] : [` ${key}="${escaped(String(value))}"`]))
    .join('');
}

function element(mark: Mark, index: number): string {
  if (mark.kind === 'text') {
    const { x, y, size, anchor, tone, strong } = mark;
    const place = {
      x: x.toFixed(2),
      y: y.toFixed(2),
      'font-size': size,
      'text-anchor': anchor,
      fill: tones[tone],
      'font-weight': strong ? 600 : undefined
    };
    return `<text${attributes(place)}>${escaped(mark.text)}</text>`;
  }
  const { d, fill, stroke, opacity, width, dash, within } = mark;
  const path = `<path${attributes({
    d,
    fill: fill === undefined ? 'none' : colourOf(fill),
    stroke: stroke === undefined ? undefined : colourOf(stroke),
    'stroke-width': stroke === undefined ? undefined : (width ?? 1),
    'stroke-dasharray': dash?.join(' '),
    'stroke-linejoin': stroke === undefined ? undefined : 'round',
    opacity,
    'clip-path': within ? `url(#within-${index})` : undefined
  })}/>`;
  if (!within) return path;
  return `<clipPath id="within-${index}"><rect${attributes({ ...within })}/></clipPath>${path}`;
}

/** @returns a whole SVG document on white */
export function drawingSvg({ width, height, title, marks }: Drawing): string {
  const size = { width, height, viewBox: `0 0 ${width} ${height}` };
  return [
    `<svg xmlns="http://www.w3.org/2000/svg"${attributes(size)} role="img" font-family="Archivo, Arial, Helvetica, sans-serif">`,
    `<title>${escaped(title)}</title>`,
    `<rect${attributes({ width, height, fill: tones.paper })}/>`,
    ...marks.map(element),
    '</svg>',
    ''
  ].join('\n');
}
