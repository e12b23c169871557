<script lang="ts">
  import { Button } from 'flowbite-svelte';
  import { sheetPages, type SheetKind } from '$core/bench/pages';
  import { sheetDrawing } from '$core/bench/sheetDrawing';
  import { drawingSvg } from '$core/paper/svg';
  import { saveBlob } from '$lib/controls/download';
  import { makeSheets } from '../../workers/clients/paper';
  import { getApp } from '$lib/state/app.svelte';

  /** The sheet as a file: PDF on either paper, or SVG. */
  let { kind, name }: { kind: SheetKind; name: string } = $props();
  const app = getApp();
  let busy = $state(false);

  async function pdf(paper: 'A4' | 'Letter') {
    busy = true;
    try {
      saveBlob(await makeSheets({ kind, paper }), `Focalis-${kind}-${paper}.pdf`);
    } catch (error) {
      app.messages.problem(`The sheet: ${error instanceof Error ? error.message : String(error)}`);
    } finally {
      busy = false;
    }
  }
  function svg() {
    sheetPages(kind, 'A4').forEach((page, index, all) =>
      saveBlob(
        new Blob([drawingSvg(sheetDrawing(page))], { type: 'image/svg+xml' }),
        `Focalis-${kind}${all.length > 1 ? `-${index + 1}` : ''}.svg`
      )
    );
  }
</script>

<div class="flex flex-wrap gap-2">
  <Button color="alternative" disabled={busy} onclick={() => pdf('A4')}>{name}, A4</Button>
  <Button color="alternative" disabled={busy} aria-label="{name}, Letter" onclick={() => pdf('Letter')}>Letter</Button>
  <Button color="alternative" aria-label="{name}, SVG" onclick={svg}>SVG</Button>
</div>
