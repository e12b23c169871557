<script lang="ts">
  import { Button } from 'flowbite-svelte';
  import { saveText } from '$lib/controls/download';
  import { getApp } from '$lib/state/app.svelte';

  /** What somebody must know about what is stored: what cannot be read, a job that was removed elsewhere. */
  const app = getApp();
  const { aside, backup, open, jobs } = app;
  const erased = $derived(open.erasedRow);
  const removed = $derived(open.jobRow?.removedAt == null ? undefined : open.jobRow);
  const gone = $derived(erased ?? removed);
  /** What was closed; anything new is shown again. */
  let closed = $state('');
  const names = $derived(aside.names.join(', '));
</script>

{#if backup.due}
  <div role="note" class="flex flex-wrap items-center gap-3 border-b border-line px-4 py-1.5" data-testid="backup-due">
    <p class="min-w-0 flex-1 text-pretty">
      {backup.at === null
        ? 'Your jobs are stored only in this browser. Back up to a file now and then.'
        : 'It is more than two weeks since you saved everything as a file.'}
    </p>
    <Button size="xs" href="/settings#backup">Save a file …</Button>
    <Button size="xs" color="alternative" onclick={() => backup.later()}>Later</Button>
  </div>
{/if}

{#if gone}
  <div role="alert" class="flex flex-wrap items-center gap-3 border-b-2 border-pencil px-4 py-1.5">
    <p class="min-w-0 flex-1">
      {#if erased}
        {gone.value.name} was erased in another tab. What you see here is still whole.
      {:else}
        {gone.value.name} was removed. It is kept, with everything you change here.
      {/if}
    </p>
    <Button size="xs" onclick={() => void jobs.bringBack(gone)}>Restore it</Button>
  </div>
{/if}
{#if names !== '' && closed !== names}
  <div
    role="alert"
    class="flex flex-wrap items-center gap-3 border-b-2 border-pencil px-4 py-1.5"
    data-testid="set-aside"
  >
    <p class="min-w-0 flex-1 text-pretty">Set aside, because it cannot be read: {names}. Everything else works.</p>
    <Button size="xs" color="alternative" onclick={() => saveText(aside.text, 'focalis-set-aside.json')}>
      Save it as a file
    </Button>
    <Button size="xs" color="alternative" onclick={() => (closed = names)}>Close</Button>
  </div>
{/if}
