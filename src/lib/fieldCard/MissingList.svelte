<script lang="ts">
  import type { Setup } from '$core/setup/schema';
  import { getApp } from '$lib/state/app.svelte';
  import Sheet from './Sheet.svelte';

  /** Who is not there. */
  let { setup, onclose }: { setup: Setup; onclose: () => void } = $props();
  const app = getApp();
  const { different } = $derived(setup.taken);
  function toggle(id: string) {
    const missing = different.missing.includes(id)
      ? different.missing.filter((item) => item !== id)
      : [...different.missing, id];
    app.day.taken([setup.id], 'Someone missing', { different: { ...different, missing } });
  }
</script>

<Sheet title="Who is missing?" {onclose}>
  <ul class="grid grid-cols-2 gap-2">
    {#each setup.people as person (person.id)}
      {@const missing = different.missing.includes(person.id)}
      <li>
        <button
          type="button"
          class="condensed min-h-12 w-full border-2 px-2 text-[17px] leading-tight {missing
            ? 'border-ink bg-ink text-surface line-through'
            : 'border-line'}"
          aria-pressed={missing}
          onclick={() => toggle(person.id)}>{person.name}</button
        >
      </li>
    {/each}
  </ul>
</Sheet>
