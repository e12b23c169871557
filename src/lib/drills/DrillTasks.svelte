<script lang="ts">
  import { Checkbox } from 'flowbite-svelte';
  import Picker from '$lib/controls/Picker.svelte';
  import { stanceChoices } from '$lib/inspector/words';
  import type { DrillSession } from './drillSession.svelte';

  /** What to do, in order, to be ticked. */
  let { session }: { session: DrillSession } = $props();
  const { drill, body, lens, ownStance, stance, ticked } = $derived(session);
</script>

{#if ownStance}
  <div class="mt-3">
    <Picker
      label="Stance"
      items={stanceChoices}
      value={stance}
      onchange={(value) => {
        session.stance = value;
      }}
    />
  </div>
{/if}
<div class="mt-4 flex items-baseline justify-between border-t border-line pt-2">
  <h2 class="font-semibold">Do</h2>
  <a
    class="min-h-6 underline"
    href="/drills/{drill.id}/hand?body={body.id}&lens={lens.id}{ownStance ? `&stance=${stance}` : ''}"
    >On the phone, step by step</a
  >
</div>
<ul>
  {#each session.tasks as task (task.id)}
    <li class="border-b border-line">
      <label class="flex min-h-11 items-start gap-3 py-2 lg:min-h-9 {ticked.includes(task.id) ? 'text-soft' : ''}">
        <Checkbox
          checked={ticked.includes(task.id)}
          onchange={(event) => session.tick(task.id, event.currentTarget.checked)}
          class="mt-0.5"
        />
        <span class="text-pretty">{task.text}</span>
      </label>
    </li>
  {/each}
</ul>
