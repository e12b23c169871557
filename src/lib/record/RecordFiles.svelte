<script lang="ts">
  import { refusedWords } from '$core/words/refused';
  import { errorReason } from '$lib/state/job/services';
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
      said = refusedWords(`import ${file.name}`, [read.field, read.reason].filter((part) => part !== '').join(': '));
      return;
    }
    try {
      const fresh = await app.record.add(read.frames);
      said = `${count(read.frames)} read; ${fresh === read.frames.length ? 'all new' : `${fresh} new, the others were here`}.`;
      onchange();
    } catch (error) {
      said = refusedWords(`import ${file.name}`, errorReason(error));
    }
  }
  async function forget(frames: readonly Recorded[]) {
    await app.record.forget(frames.map(({ id }) => id));
    forgetting = false;
    said = `Deleted ${count(frames)} from the Record. Frames still on their page don’t come back by themselves.`;
    onchange();
  }
</script>

<Dialog bind:open title="Export, import, delete" size="sm">
  <div class="mb-3"><LeavingFields /></div>
  <div class="flex flex-wrap gap-3">
    <Button disabled={all.length === 0} onclick={() => saveText(writeRecordFile(leaving), 'Focalis-record.json')}
      >Export (JSON)</Button
    >
    <Button
      color="alternative"
      disabled={all.length === 0}
      onclick={() =>
        saveBlob(new Blob(['\uFEFF', writeRecordCsv(leaving)], { type: 'text/csv' }), 'Focalis-record.csv')}
      >Export (CSV)</Button
    >
    <Button color="alternative" onclick={() => chooser?.open()}>Import</Button>
    <FileInput bind:this={chooser} label="Record file" accept=".json,application/json" onfile={bring} />
  </div>
  <div class="mt-5 border-t border-line pt-3">
    {#if forgetting}
      <p>This can’t be undone: only an exported file brings it back. The numbers in use stay until you change them.</p>
      <div class="mt-2 flex flex-wrap gap-3">
        <Button onclick={() => forget(all)}>Delete {count(all)}</Button>
        {#if simulated.length > 0 && simulated.length < all.length}
          <Button color="alternative" onclick={() => forget(simulated)}>Only simulated frames</Button>
        {/if}
        <Button color="alternative" onclick={() => (forgetting = false)}>Cancel</Button>
      </div>
    {:else}
      <button type="button" class="min-h-6 underline" disabled={all.length === 0} onclick={() => (forgetting = true)}
        >Delete the record</button
      >
    {/if}
  </div>
  {#if said !== ''}<p role="status" class="mt-3 text-pretty">{said}</p>{/if}
</Dialog>
