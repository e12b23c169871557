<script lang="ts">
  import { Plus } from '@lucide/svelte';
  import { getApp } from '$lib/state/app.svelte';
  import Thumbnail from './Thumbnail.svelte';

  let { jobId, setupId, onadd }: { jobId: string; setupId: string; onadd: () => void } = $props();
  const app = getApp();
  const rows = $derived(app.setupsOf(jobId));
</script>

<nav aria-label="Setups" class="flex gap-2 overflow-auto bg-(--strip) p-2.5 lg:flex-col lg:py-3">
  {#each rows as row, index (row.id)}
    {@const current = row.id === setupId}
    <a
      href="/setup/{row.id}"
      aria-current={current ? 'true' : undefined}
      class="block w-24 shrink-0 text-[11px] leading-tight text-[#e2e2e2]"
    >
      <span class="block border-2 {current ? 'border-[#e2563f]' : 'border-transparent'}">
        <Thumbnail {row} />
      </span>
      <span class="condensed mt-0.5 flex justify-between gap-1">
        <span class="text-[#a4a4a4]">{index + 1}</span><span class="truncate">{row.setup.name}</span>
      </span>
    </a>
  {/each}
  <button
    type="button"
    class="flex h-9 w-24 shrink-0 items-center justify-center gap-1 border border-[#5a5a5a] text-[12px] text-[#e2e2e2]"
    aria-label="Add a setup"
    onclick={onadd}
  >
    <Plus size={14} aria-hidden="true" />Setup
  </button>
</nav>
