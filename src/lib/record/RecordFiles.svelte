<script lang="ts">
  import { Button } from 'flowbite-svelte';
  import { writeRecordCsv } from '$core/formats/recordCsv';
  import { maxRecordFileBytes, readRecordFile, recordFileTooLarge, writeRecordFile } from '$core/formats/recordFile';
  import type { Recorded } from '$core/record/schema';
  import { recordWithoutNames } from '$core/record/withoutNames';
  import Dialog from '$lib/controls/Dialog.svelte';
  import { saveBlob, saveText } from '$lib/controls/download';
  import LeavingFields from '$lib/controls/LeavingFields.svelte';
  import FileInput from '$lib/controls/FileInput.svelte';
  import { getApp } from '$lib/state/app.svelte';

  interface Props {
    open: boolean;
    all: readonly Recorded[];
    onchange: () => unknown;
  }
  /** The record out, in, and away. */
  let { open = $bindable(), all, onchange }: Props = $props();
  const app = getApp();
  let chooser = $state<ReturnType<typeof FileInput>>();
  let said = $state('');
  let forgetting = $state(false);
  /** As it leaves: names only where they are ticked. */
  const leaving = $derived(app.settings.now.leaving.names ? all : recordWithoutNames(all));
  const simulated = $derived(all.filter((frame) => frame.simulated));
  const count = (frames: readonly Recorded[]) => (frames.length === 1 ? 'one frame' : `${frames.length} frames`);

  async function bring(file: File) {
    const read = file.size > maxRecordFileBytes ? recordFileTooLarge : readRecordFile(await file.text());
    if (!read.ok) {
      said = `${file.name}: ${[read.field, read.reason].filter((part) => part !== '').join(': ')} Nothing was changed.`;
      return;
    }
    try {
      const fresh = await app.record.add(read.frames);
      said = `${count(read.frames)} read; ${fresh === read.frames.length ? 'all new' : `${fresh} new, the others were here`}.`;
      onchange();
    } catch (error) {
      said = `It could not be kept: ${error instanceof Error ? error.message : String(error)} Nothing was changed.`;
    }
  }
  async function forget(frames: readonly Recorded[]) {
    await app.record.forget(frames.map(({ id }) => id));
    forgetting = false;
    said = `Forgotten: ${count(frames)}. Frames still on their page do not come back by themselves.`;
    onchange();
  }
</script>

<Dialog bind:open title="The record as files" size="sm">
  <div class="mb-3"><LeavingFields /></div>
  <div class="flex flex-wrap gap-3">
    <Button disabled={all.length === 0} onclick={() => saveText(writeRecordFile(leaving), 'Focalis-record.json')}
      >Save it (JSON)</Button
    >
    <Button
      color="alternative"
      disabled={all.length === 0}
      onclick={() =>
        saveBlob(new Blob(['\uFEFF', writeRecordCsv(leaving)], { type: 'text/csv' }), 'Focalis-record.csv')}
      >Table (CSV)</Button
    >
    <Button color="alternative" onclick={() => chooser?.open()}>Bring one in</Button>
    <FileInput bind:this={chooser} label="Record file" accept=".json,application/json" onfile={bring} />
  </div>
  <div class="mt-5 border-t border-line pt-3">
    {#if forgetting}
      <p>Forgotten is forgotten: only a saved file brings it back. The figures in use stay until you change them.</p>
      <div class="mt-2 flex flex-wrap gap-3">
        <Button onclick={() => forget(all)}>Forget {count(all)}</Button>
        {#if simulated.length > 0 && simulated.length < all.length}
          <Button color="alternative" onclick={() => forget(simulated)}>Only the simulated</Button>
        {/if}
        <Button color="alternative" onclick={() => (forgetting = false)}>Keep it</Button>
      </div>
    {:else}
      <button type="button" class="min-h-6 underline" disabled={all.length === 0} onclick={() => (forgetting = true)}
        >Forget the record</button
      >
    {/if}
  </div>
  {#if said !== ''}<p role="status" class="mt-3 text-pretty">{said}</p>{/if}
</Dialog>
