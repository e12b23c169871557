<script lang="ts">
  import Dialog from '$lib/controls/Dialog.svelte';
  import { getApp } from '$lib/state/app.svelte';
  import ReadList from './ReadList.svelte';
  import SaveFiles from './SaveFiles.svelte';

  /** The day on paper and as files, out and in. */
  let { open = $bindable(), chosen }: { open: boolean; chosen: readonly string[] } = $props();
  const app = getApp();
</script>

<Dialog bind:open title="Print and export" size="lg">
  <div class="space-y-5">
    {#if app.day.items.length > 0}<SaveFiles {chosen} />{/if}
    <div class={app.day.items.length > 0 ? 'border-t border-line pt-4' : ''}>
      <ReadList onadded={() => (open = false)} />
    </div>
  </div>
</Dialog>
