<script lang="ts">
  import type { Trap } from '$core/technique/trap';
  import { trapWords } from '$core/words/technique';
  import { getWorkspace } from '$lib/state/screen/workspace.svelte';

  /** Follow whoever walks, or wait at a mark; on the Floor, where they are at each frame of a burst. */
  let { trap }: { trap: Trap } = $props();
  const workspace = getWorkspace();
  const name = $derived(`${trap.person.name}, frame by frame`);
  function look() {
    const { depthMm, lateralMm } = trap.person;
    workspace.looked = {
      area: null,
      planes: [],
      steps: trap.framesAtMm.map((before) => ({ depthMm: depthMm + before, lateralMm })),
      setup: null,
      name
    };
  }
  const leave = () => workspace.lookAway();
</script>

<!-- svelte-ignore a11y_no_noninteractive_tabindex -->
<div
  tabindex="0"
  role="group"
  aria-label={name}
  onpointerenter={look}
  onpointerleave={leave}
  onfocus={look}
  onblur={leave}
>
  {#each trapWords(trap, workspace.unit) as line (line)}<p class="mt-1 text-pretty">{line}</p>{/each}
  <p class="label mt-1">Point here to see on the Floor where {trap.person.name} is at each frame.</p>
</div>
