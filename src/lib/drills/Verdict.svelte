<script lang="ts">
  import type { DrillSaid } from '$core/drills/kinds/kind';
  import type { HowKey } from '$core/words/how';
  import HowComputed from '$lib/controls/HowComputed.svelte';

  /** What came of it, and one thing to do next. */
  let { said, how }: { said: DrillSaid; how: HowKey } = $props();
</script>

<h2 class="condensed text-[26px] leading-tight font-bold text-pretty" data-testid="drill-verdict">{said.title}</h2>
<p class="mt-1 text-pretty">{said.detail}<HowComputed of={how} class="ml-1" /></p>
{#if said.next !== ''}
  <p class="mt-2 border-l-4 border-pencil bg-raised p-3 font-semibold text-pretty" data-testid="drill-next">
    {said.next}
  </p>
{/if}
