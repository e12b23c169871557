/** The Floor as a file: vectors, or a picture of twice the px. */
import { drawingSvg } from '$core/paper/svg';
import { canvasBlob } from '$lib/controls/canvasBlob';
import { fileName, saveBlob } from '$lib/controls/download';
import { svgCanvas } from '$lib/controls/svgCanvas';
import { floorDrawing, type FloorShown } from '../../drawing/drawing';
import type { FloorSide } from '../../drawing/geometry';

/** Large enough for a page's width, px. */
const size = { width: 960, height: 480 } as const;
const pngScale = 2;

export async function saveFloor(shown: FloorShown, side: FloorSide, as: 'svg' | 'png'): Promise<void> {
  const svg = drawingSvg(floorDrawing(shown, size.width, size.height, side));
  const name = `${fileName(shown.setup.name)}-floor.${as}`;
  if (as === 'svg') {
    saveBlob(new Blob([svg], { type: 'image/svg+xml' }), name);
    return;
  }
  const canvas = await svgCanvas(svg, size, pngScale);
  const blob = await canvasBlob(canvas, 'image/png');
  if (!blob) throw new Error('This browser can’t save it as an image.');
  saveBlob(blob, name);
}
