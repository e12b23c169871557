<script lang="ts">
  import { tick } from 'svelte';
  import type { Plan } from '$core/call/plan';
  import { getWorkspace } from '$lib/state/screen/workspace.svelte';

  let { plan }: { plan: Plan } = $props();
  const workspace = getWorkspace();

  function onkeydown(event: KeyboardEvent) {
    const by = event.key === 'ArrowLeft' ? -1 : event.key === 'ArrowRight' ? 1 : 0;
    if (by === 0) return;
    event.preventDefault();
    event.stopPropagation();
    workspace.stepStop(by);
    const head = (event.currentTarget as HTMLElement).closest('tr');
    void tick().then(() => head?.querySelector<HTMLButtonElement>('[aria-pressed=true]')?.focus());
  }
</script>

<tr>
  <th scope="col" class="sticky left-0 z-1 bg-surface label text-left font-normal">f-number</th>
  {#each plan.stops as entry, index (entry.stop.label)}
    {@const chosen = index === plan.selected}
    <th scope="col" class="h-9 p-0 font-normal">
      <button
        type="button"
        aria-pressed={chosen}
        data-stop={entry.stop.label}
        aria-label="f/{entry.stop.label}"
        tabindex={chosen ? 0 : -1}
        class="condensed relative h-8 w-full text-[13px] {chosen ? 'font-bold' : ''}"
        onclick={() => workspace.chooseStop(index)}
        {onkeydown}
      >
        {entry.stop.label}
        {#if chosen}
          <svg
            class="pointer-events-none absolute top-1/2 left-1/2 -translate-x-1/2 -translate-y-1/2 overflow-visible"
            width="34"
            height="26"
            viewBox="-17 -13 34 26"
            aria-hidden="true"
          >
            <path
              d="M-13.5 2.2C-14.5-6-7-11.6 1-11.4 9.5-11.2 15.6-6.6 15 .6 14.4 8 7 11.6-1 11.3-8 11-13.6 7.4-13.9.8c-.2-3.6 2-7 5.4-9"
              fill="none"
              stroke="var(--pencil)"
              stroke-width="2"
              stroke-linecap="round"
            />
          </svg>
        {/if}
      </button>
    </th>
  {/each}
</tr>
