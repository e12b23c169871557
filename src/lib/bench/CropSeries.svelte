<script lang="ts">
  import { Button } from 'flowbite-svelte';
  import { canvasBlob } from '$lib/controls/canvasBlob';
  import { saveBlob } from '$lib/controls/download';
  import { makePicture } from '../../workers/clients/paper';
  import { getApp } from '$lib/state/app.svelte';
  import Crop from './Crop.svelte';

  interface Props {
    crops: readonly { readonly id: string; readonly fNumber: number; readonly crop: Blob }[];
    title: string;
  }
  /** For those who would rather look: the same place at every stop, at 100%, side by side. */
  let { crops, title }: Props = $props();
  const app = getApp();
  const shown = $derived([...crops].sort((a, b) => a.fNumber - b.fNumber));
  const label = (fNumber: number) => `f/${Number(fNumber.toFixed(1))}`;
  const [side, gap, head] = [220, 12, 28];

  /** One picture of all of them, with their stops. */
  async function save(as: 'png' | 'pdf') {
    try {
      const across = Math.min(5, shown.length);
      const down = Math.ceil(shown.length / across);
      const canvas = document.createElement('canvas');
      canvas.width = across * (side + gap) + gap;
      canvas.height = head + down * (side + head) + gap;
      const context = canvas.getContext('2d');
      if (!context) throw new Error('This browser can’t draw images.');
      context.fillStyle = '#ffffff';
      context.fillRect(0, 0, canvas.width, canvas.height);
      context.fillStyle = '#141414';
      context.font = '600 16px "Archivo Variable", sans-serif';
      context.fillText(title, gap, head - 8);
      for (const [index, { crop, fNumber }] of shown.entries()) {
        const image = await createImageBitmap(crop);
        const [x, y] = [gap + (index % across) * (side + gap), head + Math.floor(index / across) * (side + head)];
        context.drawImage(image, x, y);
        context.fillText(label(fNumber), x, y + side + 18);
        image.close();
      }
      const png = await canvasBlob(canvas, 'image/png');
      if (!png) throw new Error('This browser makes no PNG.');
      saveBlob(
        as === 'png' ? png : await makePicture({ title, png: new Uint8Array(await png.arrayBuffer()), paper: 'A4' }),
        `Focalis-stops.${as}`
      );
    } catch (error) {
      app.messages.problem(`The sheet: ${error instanceof Error ? error.message : String(error)}`);
    }
  }
</script>

{#if shown.length > 0}
  <h2 class="condensed mt-6 text-[21px] leading-tight font-bold">The same place at every aperture, at 100%</h2>
  <ul class="mt-2 flex flex-wrap gap-3" aria-label="Crops by aperture">
    {#each shown as { id, fNumber, crop } (id)}<Crop {crop} label={label(fNumber)} {side} />{/each}
  </ul>
  <div class="mt-2 flex flex-wrap gap-2">
    <Button color="alternative" onclick={() => save('png')}>Save as one image</Button>
    <Button color="alternative" onclick={() => save('pdf')}>PDF</Button>
  </div>
{/if}
