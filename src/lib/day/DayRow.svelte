<script lang="ts">
  import { ArrowDown, ArrowUp, Copy, EllipsisVertical, Trash2 } from '@lucide/svelte';
  import { dayWords } from '$core/words/call';
  import { unbroken } from '$core/words/length';
  import Menu from '$lib/controls/Menu.svelte';
  import MenuItem from '$lib/controls/MenuItem.svelte';
  import { getApp } from '$lib/state/app.svelte';
  import type { SetupRow } from '$lib/state/openJob.svelte';
  import Thumbnail from '$lib/strip/Thumbnail.svelte';

  /** One setup of the Day: its picture, its call, and what can be done with it. */
  let { row, index, count }: { row: SetupRow; index: number; count: number } = $props();
  const app = getApp();
  const { setups } = app;
  const said = $derived(dayWords(app.open.planned(row.setup).plan, app.settings.now.unit));
  const name = $derived(row.setup.name);
  let menuOpen = $state(false);
  const actions = $derived([
    { icon: ArrowUp, name: `Move up: ${name}`, off: index === 0, act: () => setups.move(row, -1) },
    { icon: ArrowDown, name: `Move down: ${name}`, off: index === count - 1, act: () => setups.move(row, 1) },
    { icon: Copy, name: `Copy ${name}`, off: false, act: () => setups.duplicate(row) },
    { icon: Trash2, name: `Remove ${name}`, off: false, act: () => setups.remove(row) }
  ]);
</script>

<div
  role="listitem"
  aria-setsize={count}
  aria-posinset={index + 1}
  class="flex items-center gap-2 border-t border-line py-2.5 sm:gap-4"
>
  <span class="w-5 shrink-0 text-right text-soft">{index + 1}</span>
  <a href="/setup/{row.id}" class="flex min-w-0 flex-1 items-center gap-3 sm:gap-4">
    <span class="grid w-23 shrink-0 place-items-center"><Thumbnail {row} /></span>
    <span class="min-w-0">
      <span class="condensed block text-[17px] font-semibold">{name}</span>
      <span class="block text-[14px] text-pretty">{unbroken(said.call)}</span>
      <span class="block truncate text-soft">{said.more}</span>
    </span>
  </a>
  <div class="sm:hidden">
    <Menu bind:open={menuOpen} atEnd>
      {#snippet label()}
        <span class="grid size-8 place-items-center"
          ><EllipsisVertical size={16} aria-hidden="true" /><span class="sr-only">What to do with {name}</span></span
        >
      {/snippet}
      {#each actions as action (action.name)}
        <MenuItem
          name={action.name}
          icon={action.icon}
          disabled={action.off}
          onchosen={() => {
            menuOpen = false;
            void action.act();
          }}
        />
      {/each}
    </Menu>
  </div>
  <span class="flex max-sm:hidden">
    {#each actions as action (action.name)}
      <button
        type="button"
        class="grid size-8 place-items-center disabled:opacity-30"
        disabled={action.off}
        aria-label={action.name}
        onclick={() => void action.act()}
      >
        <action.icon size={16} aria-hidden="true" />
      </button>
    {/each}
  </span>
</div>
