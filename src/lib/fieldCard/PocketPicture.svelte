<script lang="ts">
  import type { Plan } from '$core/call/plan';
  import type { Body, Lens } from '$core/kit/schema';
  import type { SetupRow } from '$lib/state/job/openJob.svelte';
  import { aspectOf, fitInto, projection, type RenderableSetup } from '../../render/request';
  import CardPicture from './CardPicture.svelte';

  interface Props {
    row: SetupRow;
    plan: Plan;
    body: Body;
    lens: Lens;
    planned?: RenderableSetup | null;
  }
  /** The picture with the target ringed, as large as there is room for. */
  let { row, plan, body, lens, planned = null }: Props = $props();
  let width = $state(0);
  let height = $state(0);
  const aspect = $derived(aspectOf({ setup: row.setup, body }));
  const frame = $derived(fitInto(aspect, { width, height }));
  const ring = $derived.by(() => {
    const position = plan.stops[plan.selected]?.target.position;
    const at = position ? projection({ setup: row.setup, plan, body })(position) : undefined;
    return at ? { x: at.x * frame.width, y: at.y * frame.height, r: Math.max(13, 90 * at.scale * frame.width) } : null;
  });
</script>

<div class="relative min-h-0 flex-1 bg-surround" bind:clientWidth={width} bind:clientHeight={height}>
  {#if width > 0 && height > 0}
    <div class="absolute inset-0 grid place-items-center overflow-hidden">
      <div class="relative" style:width="{frame.width}px" style:height="{frame.height}px">
        <CardPicture {row} {plan} {body} {lens} {planned} {width} {height} />
        {#if ring}
          <svg
            class="absolute inset-0"
            width={frame.width}
            height={frame.height}
            aria-hidden="true"
            data-testid="pocket-ring"
          >
            <circle
              cx={ring.x}
              cy={ring.y}
              r={ring.r}
              fill="none"
              stroke="#fff"
              stroke-width="5"
              stroke-opacity="0.7"
            />
            <circle cx={ring.x} cy={ring.y} r={ring.r} fill="none" stroke="#c2341d" stroke-width="3" />
          </svg>
        {/if}
      </div>
    </div>
  {/if}
</div>
