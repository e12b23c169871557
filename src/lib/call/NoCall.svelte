<script lang="ts">
  import type { NoPlanReason } from '$core/call/plan';
  import { noPlanWords } from '$core/words/call';
  import { getWorkspace } from '$lib/state/screen/workspace.svelte';

  let { reason }: { reason: NoPlanReason } = $props();
  const workspace = getWorkspace();
  const words = $derived(noPlanWords(reason, workspace.unit));
</script>

<section aria-label="Call" data-testid="call">
  <h1 class="condensed text-[27px] leading-[1.12] font-bold text-balance">{words.title}</h1>
  <p class="mt-2 text-[15px]">{words.advice}</p>
</section>
