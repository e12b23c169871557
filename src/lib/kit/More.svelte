<script lang="ts">
  import type { Snippet } from 'svelte';
  import Fold from '$lib/controls/Fold.svelte';

  /** What few know by heart, with where its usual value comes from. */
  let { source, children }: { source: string; children: Snippet } = $props();
</script>

<div class="mt-3">
  <Fold title="More">
    <p class="label mb-2 text-pretty">{source}</p>
    <div class="grid grid-cols-2 items-start gap-x-3 gap-y-2">{@render children()}</div>
  </Fold>
</div>
