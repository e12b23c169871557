<script lang="ts">
  import { refusedWords } from '$core/words/refused';
  import { Button } from 'flowbite-svelte';
  import type { RestoreHow } from '$core/job/restoring';
  import Choice from '$lib/controls/Choice.svelte';
  import { saveBlob } from '$lib/controls/download';
  import FileInput from '$lib/controls/FileInput.svelte';
  import Progress from '$lib/controls/Progress.svelte';
  import { getApp } from '$lib/state/app.svelte';
  import type { Restorable } from '$lib/state/transfer/backup.svelte';
  import { isoDate, momentWords } from '$lib/controls/dates';

  /** Everything out as one file, and in again once one has seen what that changes. */
  const app = getApp();
  const { backup } = app;
  let chooser = $state<ReturnType<typeof FileInput>>();
  let name = $state('');
  let found = $state.raw<Restorable | null>(null);
  let refused = $state('');
  const busy = $derived(backup.busy !== '');

  async function save() {
    const blob = await backup.save();
    if (!blob) return;
    saveBlob(blob, `Focalis-${isoDate(new Date())}.zip`);
    app.messages.done('Everything is in one file. Keep it somewhere else than this machine.');
  }
  async function look(file: File) {
    name = file.name;
    found = null;
    take(await backup.look(file, 'merge'));
  }
  function take(answer: Restorable | string) {
    refused = typeof answer === 'string' ? answer : '';
    found = typeof answer === 'string' ? null : answer;
  }
  async function as(how: RestoreHow) {
    if (found) take(await backup.weigh(found.archive, how));
  }
  async function restore() {
    if (found && (await backup.restore(found))) found = null;
  }
</script>

<div class="flex flex-wrap items-center gap-x-4 gap-y-2">
  <Button disabled={busy} onclick={save}>Back up</Button>
  <Button color="alternative" disabled={busy} onclick={() => chooser?.open()}>Restore from a file…</Button>
  <FileInput bind:this={chooser} label="Archive" accept=".zip,application/zip" onfile={look} />
  <span class="text-soft" data-testid="backed-up"
    >{backup.at === null ? 'No backup yet.' : `Last backup ${momentWords(backup.at)}.`}</span
  >
</div>
<p class="mt-2 text-soft">Left out: original photos, and removed jobs.</p>
{#if busy}<div class="mt-3"><Progress label={backup.busy} share={backup.share} /></div>{/if}
{#if refused !== ''}<p role="alert" class="mt-3 text-pencil">{refusedWords(`restore ${name}`, refused)}</p>{/if}
{#if found}
  <div class="mt-4 border-l-4 border-ink pl-3" data-testid="restorable">
    <p class="font-medium">
      {name}, saved {momentWords(Date.parse(found.archive.savedAt))}: {found.archive.jobs.length}
      {found.archive.jobs.length === 1 ? 'job' : 'jobs'}
    </p>
    <div class="mt-2">
      <Choice
        legend="Restore"
        value={found.how}
        options={[
          { value: 'merge', name: 'add to what is here' },
          { value: 'replace', name: 'replace what is here' }
        ]}
        onchange={as}
      />
    </div>
    <ul class="mt-2" aria-label="What would change">
      {#each found.words as line (line)}<li>{line}</li>{/each}
    </ul>
    <div class="mt-3 flex gap-2">
      <Button disabled={busy || found.idle} onclick={restore}>Restore</Button>
      <Button color="alternative" disabled={busy} onclick={() => (found = null)}>Leave it</Button>
    </div>
  </div>
{/if}
