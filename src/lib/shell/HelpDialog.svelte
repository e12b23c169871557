<script lang="ts">
  import { Kbd, Modal } from 'flowbite-svelte';
  import { keysHelp } from './keys';

  let { open = $bindable(false) }: { open: boolean } = $props();
</script>

<Modal bind:open title="Keys" size="sm" class="text-ink">
  <dl class="grid grid-cols-[auto_1fr] items-center gap-x-5 gap-y-2">
    {#each keysHelp as { keys, does } (does)}
      <dt class="flex gap-1">
        {#each keys as key (key)}<Kbd class="px-1.5 py-0.5">{key}</Kbd>{/each}
      </dt>
      <dd>{does}</dd>
    {/each}
  </dl>
</Modal>
