<script lang="ts">
  import { limits } from '$core/schema/values';
  import { takenVerdicts } from '$core/setup/schedule';
  import { setFieldScope } from '$lib/controls/field.svelte';
  import TextField from '$lib/controls/TextField.svelte';
  import { getApp } from '$lib/state/app.svelte';
  import type { SetupRow } from '$lib/state/job/openJob.svelte';
  import Sheet from './Sheet.svelte';

  /** How it came out, and why. */
  let { row, onclose }: { row: SetupRow; onclose: () => void } = $props();
  const app = getApp();
  const { taken } = $derived(row.setup);
  setFieldScope(() => `pocket ${row.id}`);
</script>

<Sheet title="How did it go?" {onclose}>
  <div class="grid grid-cols-3 gap-2" role="group" aria-label="How did it go?">
    {#each takenVerdicts as verdict (verdict)}
      <button
        type="button"
        class="condensed h-16 border-2 border-ink text-[20px] font-bold {taken.verdict === verdict
          ? 'bg-ink text-surface'
          : ''}"
        aria-pressed={taken.verdict === verdict}
        onclick={() => app.day.judge(row.id, verdict)}>{verdict}</button
      >
    {/each}
  </div>
  <div class="pocket-field mt-4">
    <TextField
      label="Note for next time"
      value={taken.note}
      maxlength={limits.maxNotesLength}
      optional
      onchange={(note, how) => app.day.taken([row.id], 'Note', { note }, how)}
    />
  </div>
  {#if taken.doneAt !== null}
    <button
      type="button"
      class="mt-4 h-12 w-full border-2 border-line text-[16px]"
      onclick={() => {
        app.day.tick(row.id, false);
        onclose();
      }}>Mark as not done</button
    >
  {/if}
</Sheet>
