<script lang="ts">
  import { sharpFromTo } from '$core/call/inPrint';
  import { setupLeaving } from '$lib/state/job/leaving';
  import { Download, Maximize, Minus, Plus } from '@lucide/svelte';
  import { eyeHeight } from '$core/people/anatomy';
  import { formatLength, formatLengthExactly } from '$core/units/length';
  import Choice from '$lib/controls/Choice.svelte';
  import Menu from '$lib/controls/Menu.svelte';
  import MenuItem from '$lib/controls/MenuItem.svelte';
  import ToolButton from '$lib/controls/ToolButton.svelte';
  import { getWorkspace } from '$lib/state/screen/workspace.svelte';
  import { type Selected } from '$lib/state/screen/selection.svelte';
  import BlurCurve from './BlurCurve.svelte';
  import { FloorState, setFloor } from './floor.svelte';
  import FloorBackground from './FloorBackground.svelte';
  import FloorBackgroundName from './FloorBackgroundName.svelte';
  import FloorCamera from './FloorCamera.svelte';
  import FloorGhost from './FloorGhost.svelte';
  import FloorOptics from './FloorOptics.svelte';
  import FloorPerson from './FloorPerson.svelte';
  import FloorThing from './FloorThing.svelte';
  import FloorWalls from './FloorWalls.svelte';
  import { toPx } from '../../drawing/geometry';
  import { errorReason } from '$lib/state/job/services';
  import { saveFloor } from './saveFloor';
  import { zoomer } from './zoomable';

  let { height }: { height: number } = $props();
  const workspace = getWorkspace();
  const floor = setFloor(new FloorState(workspace));
  const zoom = zoomer((pan) => floor.setPan(pan));
  const curveHeight = 44;
  /** Below this height the curve makes room for the plan. */
  const curveFrom = 190;

  const setup = $derived(workspace.setup);
  const entry = $derived(workspace.entry);
  const named = $derived(setup.people.length <= 6);
  const withCurve = $derived(height >= curveFrom);
  $effect(() => {
    floor.height = height - (withCurve ? curveHeight : 0);
  });
  const zone = $derived(entry && workspace.plan ? sharpFromTo(workspace.plan, entry) : null);
  const zoneWords = $derived(
    zone
      ? `sharp ${formatLengthExactly(zone.nearMm, workspace.unit)} – ${zone.farMm === null ? '∞' : formatLengthExactly(zone.farMm, workspace.unit)}`
      : ''
  );
  let saving = $state(false);
  function save(as: 'svg' | 'png') {
    saving = false;
    const { plan, body, unit } = workspace;
    if (plan && body) {
      saveFloor({ ...setupLeaving(workspace.app, { setup, plan }), body, unit }, floor.side, as).catch(
        (error: unknown) => workspace.app.messages.problem(`The Floor was not saved: ${errorReason(error)}`)
      );
    }
  }
  let cursor = $state<number | null>(null);
  let marquee = $state.raw<{ x: number; y: number; toX: number; toY: number } | null>(null);

  const at = (event: PointerEvent) => {
    const box = (event.currentTarget as Element).getBoundingClientRect();
    return { x: event.clientX - box.left, y: event.clientY - box.top };
  };

  function startMarquee(event: PointerEvent) {
    if (!event.shiftKey || event.button !== 0 || (event.target as Element).closest('[role=button]')) return;
    const { x, y } = at(event);
    marquee = { x, y, toX: x, toY: y };
    (event.currentTarget as Element).setPointerCapture(event.pointerId);
  }
  function follow(event: PointerEvent) {
    const { x, y } = at(event);
    cursor = x;
    if (marquee) marquee = { ...marquee, toX: x, toY: y };
  }
  function endMarquee() {
    if (!marquee) return;
    const [left, right] = [Math.min(marquee.x, marquee.toX), Math.max(marquee.x, marquee.toX)];
    const [top, bottom] = [Math.min(marquee.y, marquee.toY), Math.max(marquee.y, marquee.toY)];
    const inside = (depthMm: number, acrossMm: number) => {
      const { x, y } = toPx(floor.scale, depthMm, acrossMm);
      return x >= left && x <= right && y >= top && y <= bottom;
    };
    const above = floor.side === 'above';
    const chosen: Selected[] = [
      ...setup.people
        .filter((item) =>
          inside(
            item.depthMm,
            above ? item.lateralMm : item.floorMm + eyeHeight(item.statureMm, item.posture, item.being)
          )
        )
        .map(({ id }) => ({ kind: 'person', id }) as const),
      ...setup.things
        .filter((item) => inside(item.depthMm, above ? item.lateralMm : item.heightMm))
        .map(({ id }) => ({ kind: 'thing', id }) as const)
    ];
    marquee = null;
    workspace.selection.selectAll(chosen);
  }
</script>

<div
  class="relative overflow-hidden bg-raised"
  bind:clientWidth={floor.width}
  style:height="{height}px"
  data-testid="floor"
>
  <svg
    width={floor.width}
    height={floor.height}
    role="group"
    aria-label={floor.side === 'above' ? 'Floor, seen from above' : 'Floor, seen from the side'}
    class="block touch-none select-none"
    onpointerdown={startMarquee}
    onpointermove={follow}
    onpointerup={endMarquee}
    onpointerleave={() => (cursor = null)}
    {@attach zoom.attach}
  >
    <FloorOptics />
    <FloorWalls />
    {#each setup.backgrounds as background (background.id)}<FloorBackground {background} />{/each}
    {#each setup.things as thing (thing.id)}<FloorThing {thing} />{/each}
    {#each setup.people as person (person.id)}<FloorPerson {person} {named} />{/each}
    {#each setup.backgrounds as background, index (background.id)}
      <FloorBackgroundName {background} {index} />
    {/each}
    <FloorCamera />
    <FloorGhost />
    {#if cursor !== null && floor.distanceAt(cursor) > 0}
      <path
        d="M{cursor} 30V{floor.height - 22}"
        stroke="var(--ink)"
        stroke-width="0.75"
        stroke-dasharray="1 3"
        pointer-events="none"
      />
    {/if}
    {#if marquee}
      <rect
        x={Math.min(marquee.x, marquee.toX)}
        y={Math.min(marquee.y, marquee.toY)}
        width={Math.abs(marquee.toX - marquee.x)}
        height={Math.abs(marquee.toY - marquee.y)}
        fill="var(--pencil)"
        fill-opacity="0.08"
        stroke="var(--pencil)"
        stroke-dasharray="3 2"
      />
    {/if}
  </svg>
  <div class="pointer-events-none absolute inset-x-0 top-0 flex h-7 items-center gap-3 pl-2">
    <p class="min-w-0 flex-1 truncate text-[12px]" data-testid="floor-words">
      {#if floor.pointed !== ''}
        <span class="font-medium">{floor.pointed}</span>
      {:else if cursor !== null && floor.distanceAt(cursor) > 0}
        {@const ratio = floor.blurRatioAt(cursor)}
        <span class="text-soft"
          >{formatLength(floor.distanceAt(cursor), workspace.unit)} from the lens{ratio === null
            ? ''
            : `, ${ratio < 10 ? ratio.toFixed(1) : Math.round(ratio)}× acceptable blur`}</span
        >
      {:else}
        <span class="font-medium text-cool">{zoneWords}</span>
      {/if}
    </p>
    <div class="pointer-events-auto flex items-center bg-raised">
      <div class="floor-side">
        <Choice
          legend="Seen from"
          hideLegend
          small
          value={floor.side}
          options={[
            { value: 'above', name: 'above' },
            { value: 'side', name: 'the side' }
          ]}
          onchange={(side) => {
            zoom.reset();
            floor.turnTo(side);
          }}
        />
      </div>
      <ToolButton icon={Minus} name="Zoom out" onclick={() => zoom.by(1 / 1.5)} />
      <ToolButton icon={Plus} name="Zoom in" onclick={() => zoom.by(1.5)} />
      <ToolButton icon={Maximize} name="Fit everything" onclick={() => zoom.reset()} />
      <Menu bind:open={saving} atEnd name="Save the Floor">
        {#snippet label()}<Download size={15} aria-hidden="true" class="mx-1.5" />{/snippet}
        <MenuItem name="As a drawing (SVG)" disabled={!workspace.plan} onchosen={() => save('svg')} />
        <MenuItem name="As an image (PNG)" disabled={!workspace.plan} onchosen={() => save('png')} />
      </Menu>
    </div>
  </div>
  {#if withCurve}<BlurCurve height={curveHeight} />{/if}
</div>
