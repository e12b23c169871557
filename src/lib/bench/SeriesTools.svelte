<script lang="ts" generics="T">
  import { Button } from 'flowbite-svelte';
  import type { Snippet } from 'svelte';
  import type { SheetKind } from '$core/bench/pages';
  import { acceptedPictures } from '$core/photos/kind';
  import FileInput from '$lib/controls/FileInput.svelte';
  import Progress from '$lib/controls/Progress.svelte';
  import { getApp } from '$lib/state/app.svelte';
  import SheetButtons from './SheetButtons.svelte';
  import type { Series } from './series.svelte';

  interface Props {
    series: Series<T>;
    /** What the pictures show. */
    label: string;
    /** What is printed for it; null where nothing is. */
    sheet: { readonly kind: SheetKind; readonly name: string } | null;
    onfiles: (files: File[]) => unknown;
    onsimulate: () => unknown;
    /** What is to be said before the first picture. */
    children?: Snippet;
  }
  /** Pictures in, the sheet out, how far it has come. */
  let { series, label, sheet, onfiles, onsimulate, children }: Props = $props();
  const app = getApp();
  let chooser = $state<ReturnType<typeof FileInput>>();
  const some = $derived(series.items.length > 0);
  // What is dropped anywhere on the page is meant for it.
  $effect(() => {
    app.takesPictures = onfiles;
    return () => (app.takesPictures = null);
  });
</script>

<div class="mt-4 space-y-3">
  {#if series.progress}
    {@const { done, of, what } = series.progress}
    <div class="flex flex-wrap items-end gap-4">
      <Progress label="{done} of {of} {what}" share={done / of} />
      <Button color="alternative" onclick={() => series.cancel()}>Stop</Button>
    </div>
  {:else}
    <div class="flex flex-wrap items-center gap-2">
      <Button color={some ? 'alternative' : 'primary'} onclick={() => chooser?.open()}
        >{some ? 'More photos' : 'Choose photos'}</Button
      >
      <FileInput bind:this={chooser} {label} accept={acceptedPictures} {onfiles} />
      <span class="text-soft">or drop them anywhere on this page</span>
    </div>
    {#if !some}{@render children?.()}{/if}
    <div class="flex flex-wrap gap-2">
      {#if sheet}<SheetButtons kind={sheet.kind} name={sheet.name} />{/if}
      {#if !some}
        <Button color="alternative" onclick={onsimulate}>Try it with the simulated camera</Button>
      {/if}
    </div>
  {/if}
  {#if series.problem !== ''}<p role="status" class="text-pretty">{series.problem}</p>{/if}
</div>
