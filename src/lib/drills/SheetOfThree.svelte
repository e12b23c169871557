<script lang="ts">
  import { Button } from 'flowbite-svelte';
  import { canvasBlob } from '$lib/controls/canvasBlob';
  import Choice from '$lib/controls/Choice.svelte';
  import { saveBlob } from '$lib/controls/download';
  import { makePicture } from '../../workers/clients/paper';
  import { getApp } from '$lib/state/app.svelte';

  interface Props {
    title: string;
    pictures: readonly { readonly id: string; readonly image: Blob; readonly label: string }[];
  }
  /** The pictures in one sheet, each labelled with what was focused on, ready to hand in. */
  let { title, pictures }: Props = $props();
  const app = getApp();
  let layout = $state<'equal' | 'large'>('equal');
  let canvas = $state<HTMLCanvasElement>();

  interface Place {
    readonly x: number;
    readonly y: number;
    readonly width: number;
    readonly height: number;
  }
  const [gap, head, foot, whole] = [32, 76, 36, 1600];

  async function draw(target: HTMLCanvasElement, of: Props['pictures'], as: typeof layout, named: string) {
    const images = await Promise.all(of.map(({ image }) => createImageBitmap(image)));
    const [first] = images;
    const context = target.getContext('2d');
    if (!first || !context) return;
    const ratio = first.height / first.width;
    const inner = whole - 2 * gap;
    const third = (inner - 2 * gap) / 3;
    // One large with two small beside it, as high together as it is.
    const small = (inner - gap) * 0.34;
    const large = inner - gap - small;
    const equal = (index: number): Place => ({
      x: gap + index * (third + gap),
      y: head,
      width: third,
      height: third * ratio
    });
    const beside = (index: number): Place =>
      index === 0
        ? { x: gap, y: head, width: large, height: large * ratio }
        : {
            x: gap + large + gap,
            y: head + (index - 1) * (small * ratio + foot + gap / 2),
            width: small,
            height: small * ratio
          };
    const places = images.map((_, index) => (as === 'equal' ? equal(index) : beside(index)));
    const bottom = Math.max(...places.map(({ y, height }) => y + height));
    Object.assign(target, { width: whole, height: Math.round(bottom + foot + gap) });
    context.fillStyle = '#ffffff';
    context.fillRect(0, 0, target.width, target.height);
    context.fillStyle = '#141414';
    context.font = '700 34px "Archivo Variable", sans-serif';
    context.fillText(named, gap, head - 26);
    context.font = '500 21px "Archivo Variable", sans-serif';
    for (const [index, { x, y, width, height }] of places.entries()) {
      const image = images[index];
      if (image) context.drawImage(image, x, y, width, height);
      context.fillText(`${index + 1}: ${of[index]?.label ?? ''}`, x, y + height + 26);
      image?.close();
    }
  }
  $effect(() => {
    if (canvas) void draw(canvas, pictures, layout, title);
  });

  async function save(as: 'png' | 'pdf') {
    try {
      const png = canvas && (await canvasBlob(canvas, 'image/png'));
      if (!png) throw new Error('This browser makes no PNG.');
      saveBlob(
        as === 'png' ? png : await makePicture({ title, png: new Uint8Array(await png.arrayBuffer()), paper: 'A4' }),
        `Focalis-three.${as}`
      );
    } catch (error) {
      app.messages.problem(`The sheet: ${error instanceof Error ? error.message : String(error)}`);
    }
  }
</script>

<section class="mt-6" aria-label="Sheet of three">
  <h2 class="condensed text-[21px] leading-tight font-bold">Sheet of three, labelled</h2>
  <div class="mt-2 flex flex-wrap items-end gap-2">
    <Choice
      legend="Layout"
      hideLegend
      small
      value={layout}
      options={[
        { value: 'equal', name: 'three equal' },
        { value: 'large', name: 'one large, two small' }
      ]}
      onchange={(value) => (layout = value)}
    />
    <Button color="alternative" onclick={() => save('png')}>Save as image</Button>
    <Button color="alternative" onclick={() => save('pdf')}>PDF</Button>
  </div>
  <canvas
    bind:this={canvas}
    class="mt-2 w-full max-w-3xl border border-line"
    aria-label="The sheet: {title}"
    data-testid="sheet-of-three"
  ></canvas>
</section>
