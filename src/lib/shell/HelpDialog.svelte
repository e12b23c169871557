<script lang="ts">
  import { Button, Kbd } from 'flowbite-svelte';
  import Dialog from '$lib/controls/Dialog.svelte';
  import { keysHelp } from './keys';

  let { open = $bindable(false), onshow }: { open: boolean; onshow: (() => void) | null } = $props();
</script>

<Dialog bind:open title="Keys" size="sm">
  <dl class="grid grid-cols-[auto_1fr] items-center gap-x-5 gap-y-2">
    {#each keysHelp as { keys, does } (does)}
      <dt class="flex gap-1">
        {#each keys as key (key)}<Kbd class="px-1.5 py-0.5">{key}</Kbd>{/each}
      </dt>
      <dd>{does}</dd>
    {/each}
  </dl>
  {#if onshow}
    <Button class="mt-4" color="alternative" onclick={onshow}>Tour this screen</Button>
  {/if}
</Dialog>
