import { isRefused } from '../core/bench/refused';
import { execFileSync } from 'node:child_process';
import { mkdtempSync, readFileSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { PNG } from 'pngjs';
import { describe, expect, it } from 'vitest';
import { findMarkers } from '../core/bench/markers';
import { measureEdgeFrame } from '../core/bench/edgeFrame';
import { lightAt, type Gray } from '../core/bench/gray';
import { sheetPages, scaleMm } from '../core/bench/pages';
import { matchesOf, placed, poseFrom, projected, projectionPx, tiltOf } from '../core/bench/pose';
import { rasterOf } from '../core/bench/raster';
import { sheetDrawing } from '../core/bench/sheetDrawing';
import { drawingSvg } from '../core/paper/svg';
import { mmPerInch } from '../core/units/conversions';
import { edgePages, focusHalves } from '../core/bench/sheets';
import { luminanceOf } from '../core/measure/luminance';
import { fontFiles } from './fontFiles';
import type { FontFiles } from './fonts';
import { sheetsPdf } from './sheets';

const modules = join(import.meta.dirname, '../../node_modules');
const bytesOf = (file: string) => new Uint8Array(readFileSync(join(modules, file)));
const files: FontFiles = {
  text: fontFiles.text.map(bytesOf),
  bold: fontFiles.bold.map(bytesOf),
  narrow: fontFiles.narrow.map(bytesOf)
};
const dpi = 152.4;
const perMm = dpi / 25.4;

type Paper = 'A4' | 'Letter';
const pages = new Map<string, Promise<Gray>>();
/** A page of a sheet, drawn once for all who look at it. */
function drawnSheet(kind: 'focus' | 'edges', paper: Paper, page = 1): Promise<Gray> {
  const key = `${kind} ${paper} ${page}`;
  const known = pages.get(key) ?? sheetsPdf({ kind, paper }, files).then((pdf) => drawn(pdf, page));
  pages.set(key, known);
  return known;
}

/** A page as `pdftoppm` of Poppler, another reader, draws it. */
function drawn(pdf: Uint8Array, page: number): Gray {
  const folder = mkdtempSync(join(tmpdir(), 'focalis-'));
  const file = join(folder, 'a.pdf');
  writeFileSync(file, pdf);
  if (process.env['KEEP_PDF']) writeFileSync(`${process.env['KEEP_PDF']}sheet${page}.pdf`, pdf);
  execFileSync('pdftoppm', [
    '-r',
    String(dpi),
    '-f',
    String(page),
    '-l',
    String(page),
    '-png',
    '-singlefile',
    file,
    join(folder, 'a')
  ]);
  const { width, height, data } = PNG.sync.read(readFileSync(join(folder, 'a.png')));
  return { width, height, light: luminanceOf(data) };
}

describe('the printed sheets', () => {
  it('have the markers of both halves where they are looked for, to a tenth of a millimetre', async () => {
    for (const paper of ['A4', 'Letter'] as const) {
      const page = await drawnSheet('focus', paper);
      const { markers, twice } = findMarkers(page);
      expect(twice).toEqual([]);
      const [layout] = sheetPages('focus', paper);
      for (const { piece, x, y } of layout?.pieces ?? []) {
        const matches = matchesOf(piece, markers);
        expect(matches).toHaveLength(4 * piece.markers.length);
        for (const { mm, px } of matches) {
          expect(Math.abs((px.x + 0.5) / perMm - (x + mm.x))).toBeLessThan(0.1);
          expect(Math.abs((px.y + 0.5) / perMm - (y + mm.y))).toBeLessThan(0.1);
        }
      }
    }
  });

  it('have the texture that is measured against, warped as it would be photographed', async () => {
    const page = await drawnSheet('focus', 'A4');
    const { leaning } = focusHalves();
    // As if photographed from far: a lens of 200 mm over 2 m whose pixels are those of the drawing.
    const lens = { focalLengthMm: 200, pixelMm: 200 / 1800 / perMm, width: page.width, height: page.height };
    const pose = poseFrom(matchesOf(leaning, findMarkers(page).markers), lens);
    if (!pose) throw new Error('no pose');
    expect(tiltOf(pose)).toBeLessThan(1);
    const vPx = projectionPx(lens, placed(pose, { x: 60, y: 93 })[2]);
    const raster = rasterOf(leaning, 10);
    let [xy, xx, yy, sx, sy, n] = [0, 0, 0, 0, 0, 0];
    for (let y = 10; y < 176; y += 0.7)
      for (let x = 25; x < 95; x += 0.7) {
        const px = projected(pose, { x, y }, lens, vPx);
        const [a, b] = [lightAt(page, px.x, px.y), lightAt(raster, x * 10 - 0.5, y * 10 - 0.5)];
        sx += a;
        sy += b;
        xx += a * a;
        yy += b * b;
        xy += a * b;
        n++;
      }
    const correlation = (xy - (sx * sy) / n) / Math.sqrt((xx - (sx * sx) / n) * (yy - (sy * sy) / n));
    expect(correlation).toBeGreaterThan(0.95);
  });

  it('have edges that are measured on every page, and a scale of 100 mm', async () => {
    for (const number of [1, edgePages]) {
      const page = await drawnSheet('edges', 'A4', number);
      const lens = { focalLengthMm: 200, pixelMm: 200 / 1800 / perMm, width: page.width, height: page.height };
      const found = measureEdgeFrame(page, lens);
      if (isRefused(found)) throw new Error(found.problem);
      expect(found.pages).toEqual([number - 1]);
      expect(found.edges).toHaveLength(4);
      expect(found.tone?.exponent).toBeCloseTo(1, 1);
    }
    // The line under the page: dark from end to end, and no further.
    const page = await drawnSheet('edges', 'A4');
    const [layout] = sheetPages('edges', 'A4');
    const [line] = layout?.lines ?? [];
    if (!line) throw new Error('no scale');
    expect(line.to[0] - line.from[0]).toBe(scaleMm);
    const row = Math.round(line.from[1] * perMm);
    const dark = Array.from({ length: page.width }, (_, x) =>
      Math.min(...[-1, 0, 1].map((dy) => page.light[(row + dy) * page.width + x] ?? 1))
    );
    const first = dark.findIndex((value) => value < 0.4);
    const last = dark.length - 1 - [...dark].reverse().findIndex((value) => value < 0.4);
    expect((last - first) / perMm).toBeCloseTo(scaleMm, 0);
  });

  it('are the same as SVG, as large as the paper', () => {
    for (const kind of ['focus', 'edges', 'ladder'] as const)
      for (const page of sheetPages(kind, 'Letter')) {
        const svg = drawingSvg(sheetDrawing(page));
        const [, width = ''] = /^<svg [^>]*width="([\d.]+)"/.exec(svg) ?? [];
        expect((Number(width) / 96) * mmPerInch).toBeCloseTo(page.width, 6);
        expect(svg).not.toMatch(/NaN|undefined/);
        expect(svg).toContain(`<title>${page.title}</title>`);
        // Nothing lies off the paper.
        for (const { piece, x, y } of page.pieces) {
          expect(x).toBeGreaterThan(4);
          expect(y).toBeGreaterThan(4);
          expect(x + piece.width).toBeLessThan(page.width - 4);
          expect(y + piece.height).toBeLessThan(page.height - 4);
        }
      }
  });
});
