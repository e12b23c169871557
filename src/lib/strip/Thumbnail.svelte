<script lang="ts">
  import type { SetupRow } from '$lib/data';
  import Outline from '$lib/finder/Outline.svelte';
  import { getApp } from '$lib/state/app.svelte';

  let { row, width, height }: { row: SetupRow; width: number; height: number } = $props();
  const app = getApp();
  const plan = $derived(app.plan(row));
  const body = $derived(app.kit.bodies.find((item) => item.id === row.setup.camera.bodyId));
</script>

<span class="grid place-items-center bg-[#3a3a3a]" style:width="{width}px" style:height="{height}px" aria-hidden="true">
  {#if plan.kind === 'plan' && body}
    <Outline setup={row.setup} {plan} {body} {width} {height} plain />
  {/if}
</span>
