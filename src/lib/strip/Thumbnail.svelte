<script lang="ts">
  import type { SetupRow } from '$lib/state/job/openJob.svelte';
  import { asking, aspectOf, atStop, fitInto } from '../../render/request';
  import { drawnFrom } from '$lib/finder/drawnFrom';
  import SizedPicture from '$lib/controls/SizedPicture.svelte';
  import Outline from '$lib/finder/Outline.svelte';
  import { getRenderings } from '../../workers/clients/renderer.svelte';
  import { getApp } from '$lib/state/app.svelte';

  interface Props {
    row: SetupRow;
    /** The room for it, px; the strip and the Day share one size, and so the pictures kept. */
    width?: number;
    height?: number;
  }
  /**
   * A small picture of a setup: the one drawn before if it still holds, else drawn when nothing more pressing is. Until
   * there is one, the outline stands in.
   */
  let { row, width = 92, height = 62 }: Props = $props();
  const app = getApp();
  const pictures = getRenderings();
  const views = 40;
  /** A setup being changed is drawn again once it rests. */
  const restMs = 900;

  const { plan, body, lens } = $derived(app.open.planned(row.setup));
  const aspect = $derived(body ? aspectOf({ setup: row.setup, body }) : 1.5);
  const frame = $derived(fitInto(aspect, { width, height }));
  let address = $state('');

  function show(picture: Blob) {
    URL.revokeObjectURL(address);
    address = URL.createObjectURL(picture);
  }

  $effect(() => {
    if (plan.kind !== 'plan' || !body || !lens) return;
    const taken = { setup: row.setup, plan, body, lens };
    const { width: w, height: h } = frame;
    const key = `strip-${row.id}`;
    const { selected } = plan;
    let wanted = true;
    const timer = setTimeout(
      () => {
        const from = drawnFrom(atStop(taken, selected), [w, h]);
        void app.thumbnails.kept(key, from).then((kept) => {
          if (!wanted) return;
          if (kept) {
            show(kept);
            return;
          }
          const asked = asking(taken, { slot: key, priority: 5, width: w * 2, height: h * 2, views, quick: false });
          if (!asked) return;
          pictures.ask(asked, ({ image, views: drawn, of }) => {
            if (drawn < of) {
              image.close();
              return;
            }
            const canvas = document.createElement('canvas');
            canvas.width = image.width;
            canvas.height = image.height;
            canvas.getContext('bitmaprenderer')?.transferFromImageBitmap(image);
            canvas.toBlob((picture) => {
              if (!picture) return;
              if (wanted) show(picture);
              void app.thumbnails.keep({ key, drawnFrom: from, picture });
            });
          });
        });
      },
      address === '' ? 0 : restMs
    );
    return () => {
      wanted = false;
      clearTimeout(timer);
      pictures.drop(key);
    };
  });
  $effect(() => () => URL.revokeObjectURL(address));
</script>

<span class="grid place-items-center bg-[#3a3a3a]" style:width="{width}px" style:height="{height}px" aria-hidden="true">
  {#if address !== ''}
    <SizedPicture {address} {frame} testid="thumbnail" />
  {:else if plan.kind === 'plan' && body}
    <Outline setup={row.setup} {plan} {body} {width} {height} plain />
  {/if}
</span>
