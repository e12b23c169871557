<script lang="ts">
  import { Button } from 'flowbite-svelte';
  import { writeFramesCsv } from '$core/formats/framesCsv';
  import { sidecarOf, spliceSidecar, writeSidecar } from '$core/formats/sidecar';
  import { frameRemark } from '$core/words/frames';
  import Dialog from '$lib/controls/Dialog.svelte';
  import { fileName, saveBlob } from '$lib/controls/download';
  import LeavingFields from '$lib/controls/LeavingFields.svelte';
  import { getApp } from '$lib/state/app.svelte';
  import { nameLeaving, textLeaving } from '$lib/state/job/leaving';
  import KeptPictures from './KeptPictures.svelte';
  import { judging, nameIn } from './judging';

  /** What was chosen and measured, as files for other programs. */
  let { open = $bindable() }: { open: boolean } = $props();
  const app = getApp();
  let input = $state<HTMLInputElement>();
  let said = $state('');
  const title = $derived(fileName(textLeaving(app, app.open.job?.name ?? 'Focalis')));
  const nameOf = $derived(nameLeaving(app, nameIn(app)));
  const base = (name: string) => name.replace(/\.[^.]*$/, '');

  function table() {
    const lines = app.frames.list.map(({ frame }) => ({
      frame,
      setup: frame.setupId === null ? '' : textLeaving(app, app.open.row(frame.setupId)?.setup.name ?? ''),
      nameOf
    }));
    saveBlob(new Blob(['\uFEFF', writeFramesCsv(lines)], { type: 'text/csv' }), `${title}-frames.csv`);
  }
  async function sidecars() {
    const { zipped } = await import('../../workers/zip');
    const refused: string[] = [];
    const judged = [...app.frames.bySetup.keys()].flatMap((id) => judging(app, id).judged);
    const files: [string, string][] = [];
    for (const one of judged) {
      const { frame } = one;
      const sidecar = sidecarOf(frame, frameRemark(one, nameOf));
      const before = (await app.frames.picture(frame.id))?.sidecar ?? null;
      const spliced = before === null ? null : spliceSidecar(before, sidecar);
      if (spliced && !spliced.ok)
        refused.push(`The sidecar of ${frame.file.name} is in the zip as it was: ${spliced.reason}`);
      files.push([`${base(frame.file.name)}.xmp`, spliced?.ok ? spliced.text : (before ?? writeSidecar(sidecar))]);
    }
    // Two files of one name: the second has its number.
    const seen: Record<string, number> = {};
    const unique = files.map(([name, text]): [string, string] => {
      const count = (seen[name] ?? 0) + 1;
      seen[name] = count;
      return [count === 1 ? name : `${base(name)} (${count}).xmp`, text];
    });
    saveBlob(await zipped(unique), `${title}-sidecars.zip`);
    said = refused.join(' ');
  }
  function bring(event: Event) {
    const field = event.currentTarget as HTMLInputElement;
    void app.frames.add([...(field.files ?? [])]);
    field.value = '';
  }
</script>

<Dialog bind:open title="Save results" size="sm">
  <p class="text-soft">
    Your picks become star ratings other programs read: keep 5, maybe 3, reject −1. Undecided frames keep the rating
    they came with.
  </p>
  <div class="mt-4"><LeavingFields /></div>
  <div class="mt-3 flex flex-wrap gap-3">
    <Button onclick={sidecars}>Sidecars (XMP, zip)</Button>
    <Button color="alternative" onclick={table}>Measurements (CSV)</Button>
  </div>
  <p class="mt-4">
    <button type="button" class="min-h-6 underline" onclick={() => input?.click()}>Import sidecars</button>
    <span class="text-soft">you already have: they are updated, and everything else in them stays.</span>
    <input
      bind:this={input}
      type="file"
      multiple
      accept=".xmp"
      class="sr-only"
      tabindex="-1"
      aria-label="Sidecars"
      onchange={bring}
    />
  </p>
  {#if said !== ''}<p role="alert" class="mt-3 text-pencil">{said}</p>{/if}
  <KeptPictures />
</Dialog>
