<script lang="ts">
  import { Plus } from '@lucide/svelte';
  import { untrack } from 'svelte';
  import { MediaQuery } from 'svelte/reactivity';
  import { Virtualizer, type VirtualizerHandle } from 'virtua/svelte';
  import { getApp } from '$lib/state/app.svelte';
  import Thumbnail from './Thumbnail.svelte';

  let { setupId, onadd }: { setupId: string; onadd: () => void } = $props();
  const app = getApp();
  const rows = $derived(app.open.rows);
  const index = $derived(rows.findIndex((row) => row.id === setupId));
  /** On the desk the strip stands upright; on a narrow screen it lies. */
  const upright = new MediaQuery('min-width: 64rem', true);
  /** Extent of one picture with its name and the gap after it, px. */
  const heightPx = 90;
  const widthPx = 104;
  let scroller = $state<HTMLElement>();
  let list = $state<VirtualizerHandle>();

  // The picture on the screen is in the strip, also when one comes to it by a key or an address.
  $effect(() => {
    if (list && index >= 0) untrack(() => list?.scrollToIndex(index, { align: 'nearest' }));
  });
</script>

<nav
  bind:this={scroller}
  aria-label="Setups"
  class="flex h-full gap-2 overflow-auto p-2.5 lg:flex-col lg:gap-0 lg:py-3"
>
  {#key upright.current}
    <div class={upright.current ? 'shrink-0' : 'h-21 shrink-0'}>
      <Virtualizer
        bind:this={list}
        data={rows}
        getKey={(row) => row.id}
        scrollRef={scroller}
        horizontal={!upright.current}
        itemSize={upright.current ? heightPx : widthPx}
        bufferSize={400}
        keepMounted={index < 0 ? [] : [index]}
      >
        {#snippet children(row, position)}
          {@const current = row.id === setupId}
          <a
            href="/setup/{row.id}"
            aria-current={current ? 'true' : undefined}
            class="block w-24 shrink-0 pb-2 text-[11px] leading-tight text-[#e2e2e2] max-lg:mr-2"
          >
            <span class="block border-2 {current ? 'border-[#e2563f]' : 'border-transparent'}">
              <Thumbnail {row} />
            </span>
            <span class="condensed mt-0.5 flex justify-between gap-1">
              <span class="text-[#a4a4a4]">{position + 1}</span><span class="truncate">{row.setup.name}</span>
            </span>
          </a>
        {/snippet}
      </Virtualizer>
    </div>
  {/key}
  <button
    type="button"
    class="flex h-9 w-24 shrink-0 items-center justify-center gap-1 border border-[#5a5a5a] text-[12px] text-[#e2e2e2]"
    aria-label="Add a setup"
    onclick={onadd}
  >
    <Plus size={14} aria-hidden="true" />Setup
  </button>
</nav>
