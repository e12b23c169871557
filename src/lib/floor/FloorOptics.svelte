<script lang="ts">
  import { sharpFromTo } from '$core/call/inPrint';
  import { getWorkspace } from '$lib/state/screen/workspace.svelte';
  import { getFloor } from './floor.svelte';
  import { axisTicks, framePath, planePath, toPx, zonePath } from '../../drawing/geometry';

  /** The frame's edges, the sharp zone with its plane and limits, and the axis. */
  const workspace = getWorkspace();
  const floor = getFloor();
  const id = $props.id();
  const plan = $derived(workspace.plan);
  const entry = $derived(workspace.entry);
  const zone = $derived(plan && entry ? sharpFromTo(plan, entry) : null);
  const far = $derived(zone?.farMm ?? Infinity);
  const { scale, placed, height, width } = $derived(floor);
  const ticks = $derived(axisTicks(scale, workspace.distanceMm, workspace.unit));
</script>

{#if placed && plan && workspace.body}
  <path
    d={framePath(placed, workspace.setup, workspace.body, plan)}
    fill="var(--ink)"
    fill-opacity="0.05"
    stroke="var(--ink)"
    stroke-opacity="0.25"
    stroke-width="0.75"
  />
{/if}
{#if floor.side === 'side'}
  {@const ground = toPx(scale, 0, 0).y}
  <path d="M0 {ground}H{width}" stroke="var(--ink-soft)" stroke-width="1.5" />
{/if}
{#each ticks as tick (tick.label)}
  <path d="M{tick.x} 30V{height - 22}" stroke="var(--line)" stroke-width="1" opacity="0.6" />
  <text x={tick.x} y={height - 8} text-anchor="middle" class="fill-soft text-[11px]">{tick.label}</text>
{/each}
<clipPath id="{id}-plot"><rect y="26" {width} height={Math.max(0, height - 48)} /></clipPath>
{#if placed && entry && zone}
  <g clip-path="url(#{id}-plot)">
    <path d={zonePath(placed, zone.nearMm, far)} fill="var(--cool)" opacity="0.2" data-testid="sharp-zone" />
    <path
      d="{planePath(placed, zone.nearMm)}{far < scale.extentMm * 3 ? planePath(placed, far) : ''}"
      fill="none"
      stroke="var(--cool)"
      stroke-width="0.75"
    />
    <path
      d={planePath(placed, entry.planeMm)}
      fill="none"
      stroke="var(--cool)"
      stroke-width="1.5"
      stroke-dasharray="5 4"
      data-testid="focus-plane"
    />
    {#each workspace.looked?.planes ?? [] as plane, index (index)}
      <path
        d={planePath(placed, plane.depth)}
        fill="none"
        stroke={index === 0 ? 'var(--pencil)' : 'var(--ink)'}
        stroke-width={index === 0 ? 2 : 1 + 4 * plane.chance}
        stroke-opacity={index === 0 ? 1 : 0.55}
        data-testid="looked-plane"
      />
    {/each}
    {#each floor.side === 'above' ? (workspace.looked?.steps ?? []) : [] as step, index (index)}
      {@const at = toPx(scale, step.depthMm, step.lateralMm)}
      <circle
        cx={at.x}
        cy={at.y}
        r="4"
        fill="var(--surface)"
        stroke="var(--pencil)"
        stroke-width="1.5"
        data-testid="step"
      />
    {/each}
    {#if entry.secondTarget}
      <path
        d={planePath(placed, entry.secondPlaneMm ?? entry.secondTarget.focusDistanceMm)}
        fill="none"
        stroke="var(--cool)"
        stroke-width="1.5"
        stroke-dasharray="2 3"
      />
    {/if}
  </g>
{/if}
{#if floor.caughtRowMm !== null}
  {@const row = toPx(scale, floor.caughtRowMm, 0).x}
  <path d="M{row} 26V{height - 22}" stroke="var(--pencil)" stroke-width="1" />
{/if}
