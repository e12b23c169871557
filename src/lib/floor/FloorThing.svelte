<script lang="ts">
  import type { Thing } from '$core/setup/schema';
  import { formatLength } from '$core/units/length';
  import { getWorkspace } from '$lib/state/screen/workspace.svelte';
  import { getFloor } from './floor.svelte';
  import { toPx } from '../../drawing/geometry';
  import { movable } from './movable';
  import { nudge } from './nudge';

  let { thing }: { thing: Thing } = $props();
  const workspace = getWorkspace();
  const floor = getFloor();

  /** Sides below this are drawn larger than life, px. */
  const leastSide = 8;

  const selection = $derived({ kind: 'thing', id: thing.id } as const);
  const above = $derived(floor.side === 'above');
  const at = $derived(toPx(floor.scale, thing.depthMm, above ? thing.lateralMm : thing.heightMm));
  const across = $derived(Math.max(leastSide, (above ? thing.widthMm : thing.tallMm) * floor.scale.pxPerMm));
  const deep = $derived(Math.max(leastSide, thing.deepMm * floor.scale.pxPerMm));
  const chosen = $derived(workspace.isSelected('thing', thing.id));
  const target = $derived(workspace.entry?.target.subjectId === thing.id);
  const distance = $derived(formatLength(thing.depthMm + workspace.distanceMm, workspace.unit));

  function keys(event: KeyboardEvent) {
    const by = nudge(event);
    if (by) floor.nudged(selection, by);
  }
</script>

<g
  role="button"
  tabindex="0"
  aria-pressed={chosen}
  aria-label="{thing.name}, {distance} from the lens. Arrow keys move it."
  class="cursor-grab focus-visible:outline-2"
  transform="translate({at.x} {at.y})"
  onfocus={() => !chosen && workspace.selection.select(selection)}
  onkeydown={keys}
  onkeyup={() => workspace.endGesture()}
  onpointerenter={() => (floor.pointed = `${thing.name} ${distance}`)}
  onpointerleave={() => (floor.pointed = '')}
  data-testid="floor-thing-{thing.id}"
  {@attach movable(() => floor.moving(selection, () => `${thing.name} ${distance}`))}
>
  <circle r="13" fill="transparent" />
  <rect
    x={-deep / 2}
    y={-across / 2}
    width={deep}
    height={across}
    fill="var(--raised)"
    stroke={chosen ? 'var(--pencil)' : 'var(--ink)'}
    stroke-width="1.5"
  />
  <text y={across / 2 + 13} text-anchor="middle" class="floor-text text-[12px] font-medium">{thing.name}</text>
  {#if target}
    <circle r={Math.max(9, deep)} fill="none" stroke="var(--pencil)" stroke-width="2" pointer-events="none" />
  {/if}
</g>
