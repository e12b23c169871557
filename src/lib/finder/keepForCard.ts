/** The Finder's finished picture, kept small for the field card: on the phone, then, nothing needs drawing. */
import { canvasBlob } from '$lib/controls/canvasBlob';
import type { Thumbnails } from '$lib/data';
import type { RenderableSetup } from '../../render/request';
import { cardKey, drawnFrom } from './drawnFrom';

/** Drawn smaller than a phone shows, as slow machines draw while something moves, the outline says more, px. */
const leastPx = 300;

/** Twice what a phone's width shows, px. */
const longSidePx = 760;

export async function keepForCard(
  thumbnails: Thumbnails,
  canvas: HTMLCanvasElement,
  id: string,
  taken: RenderableSetup
): Promise<void> {
  if (Math.max(canvas.width, canvas.height) < leastPx) return;
  const scale = Math.min(1, longSidePx / Math.max(canvas.width, canvas.height));
  const small = document.createElement('canvas');
  small.width = Math.round(canvas.width * scale);
  small.height = Math.round(canvas.height * scale);
  small.getContext('2d')?.drawImage(canvas, 0, 0, small.width, small.height);
  const picture = await canvasBlob(small, 'image/jpeg', 0.85);
  if (picture) await thumbnails.keep({ key: cardKey(id), drawnFrom: drawnFrom(taken), picture });
}
