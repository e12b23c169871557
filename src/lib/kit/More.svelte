<script lang="ts">
  import type { Snippet } from 'svelte';

  /** What few know by heart, with where its usual value comes from. */
  let { source, children }: { source: string; children: Snippet } = $props();
</script>

<details class="mt-3 border-t border-line">
  <summary class="py-1.5 font-semibold">More</summary>
  <p class="label mb-2 text-pretty">{source}</p>
  <div class="grid grid-cols-2 items-start gap-x-3 gap-y-2">{@render children()}</div>
</details>
