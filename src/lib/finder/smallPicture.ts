/** A setup's small picture as bytes: what the Finder last drew of it, else its outline. */
import { mount, unmount } from 'svelte';
import type { Thumbnails } from '$lib/data';
import { canvasBlob } from '$lib/controls/canvasBlob';
import { svgCanvas } from '$lib/controls/svgCanvas';
import { aspectOf, fitInto, type RenderableSetup } from '../../render/request';
import { cardKey, drawnFrom } from './drawnFrom';
import Outline from './Outline.svelte';

/** The longer side of an outline, px: sharp on a page, small as a file. */
const longPx = 560;

/** JPEG; null where the browser draws none. */
export async function pictureOf(
  thumbnails: Thumbnails,
  id: string,
  taken: RenderableSetup
): Promise<Uint8Array | null> {
  const kept = await thumbnails.kept(cardKey(id), drawnFrom(taken));
  const picture = kept?.type === 'image/jpeg' ? kept : await outlined(taken);
  return picture ? new Uint8Array(await picture.arrayBuffer()) : null;
}

async function outlined({ setup, plan, body }: RenderableSetup): Promise<Blob | null> {
  const room = fitInto(aspectOf({ setup, body }), { width: longPx, height: longPx });
  const target = document.createElement('div');
  const outline = mount(Outline, { target, props: { setup, plan, body, ...room, plain: true } });
  try {
    const svg = target.querySelector('svg');
    if (!svg) return null;
    const canvas = await svgCanvas(new XMLSerializer().serializeToString(svg), room, 1);
    return await canvasBlob(canvas, 'image/jpeg', 0.85);
  } catch {
    // A card without its picture still says everything.
    return null;
  } finally {
    await unmount(outline);
  }
}
