<script lang="ts">
  import type { Background } from '$core/setup/schema';
  import { formatLength } from '$core/units/length';
  import { getWorkspace } from '$lib/state/screen/workspace.svelte';
  import { backgroundEdgePx, getFloor } from './floor.svelte';
  import { toPx } from '../../drawing/geometry';
  import { movable } from './movable';
  import { nudge, snapDistance, snapMm } from './nudge';

  let { background }: { background: Background } = $props();
  const workspace = getWorkspace();
  const floor = getFloor();

  const selection = $derived({ kind: 'background', id: background.id } as const);
  const above = $derived(floor.side === 'above');
  const at = $derived(toPx(floor.scale, background.depthMm, above ? background.lateralMm : 1300));
  const off = $derived(at.x > floor.width - backgroundEdgePx);
  const x = $derived(Math.min(floor.width - backgroundEdgePx, at.x));
  const half = $derived(Math.min(60, floor.height * 0.22));
  const chosen = $derived(workspace.isSelected('background', background.id));
  const distance = $derived(formatLength(background.depthMm + workspace.distanceMm, workspace.unit));
  /** What the lens wipes out there, to scale: the disc lost, and the detail it is judged by. */
  const lostMm = $derived.by(() => {
    const place = workspace.plan?.backgrounds.findIndex((item) => item.id === background.id) ?? -1;
    return workspace.entry?.backgrounds[place]?.lostDetailMm ?? null;
  });
  const words = $derived(
    `${background.name} ${distance}${lostMm === null ? '' : `, detail under ${formatLength(lostMm, workspace.unit)} lost`}`
  );
  const dashes = $derived(
    background.wish === 'hide' || background.wish === 'soft' ? '2 3' : background.wish === 'hint' ? '8 3' : undefined
  );

  function move() {
    let from = background;
    return {
      start: () => {
        workspace.selection.select(selection);
        floor.hold();
        from = background;
      },
      move: (dx: number, dy: number, fine: boolean) => {
        const { pxPerMm } = floor.scale;
        const from0 = workspace.distanceMm;
        workspace.editBackground(
          background.id,
          `${background.name} moved`,
          (draft) => {
            draft.depthMm = snapDistance(from.depthMm + dx / pxPerMm + from0, pxPerMm, fine) - from0;
            if (above) draft.lateralMm = snapMm(from.lateralMm + dy / pxPerMm, fine);
          },
          `drag-${background.id}`
        );
        floor.pointed = words;
      },
      end: () => floor.release()
    };
  }

  function keys(event: KeyboardEvent) {
    const by = nudge(event);
    if (!by) return;
    workspace.editBackground(
      background.id,
      `${background.name} moved`,
      (draft) => {
        draft.depthMm += by.depthMm;
        if (above) draft.lateralMm += by.lateralMm;
      },
      `keys-${background.id}`
    );
  }
</script>

<g
  role="button"
  tabindex="0"
  aria-pressed={chosen}
  aria-label="{background.name}, {distance} from the lens. Arrow keys move it."
  class="cursor-grab focus-visible:outline-2"
  onfocus={() => !chosen && workspace.selection.select(selection)}
  onkeydown={keys}
  onkeyup={() => workspace.endGesture()}
  onpointerenter={() => (floor.pointed = words)}
  onpointerleave={() => (floor.pointed = '')}
  data-testid="floor-background-{background.id}"
  {@attach movable(move)}
>
  <rect x={x - 9} y={at.y - half} width="18" height={half * 2} fill="transparent" />
  <path
    d="M{x} {at.y - half}V{at.y + half}"
    stroke={chosen ? 'var(--pencil)' : 'var(--ink-soft)'}
    stroke-width="5"
    stroke-dasharray={dashes}
  />
  {#if lostMm !== null && !off}
    {@const lost = Math.min(half * 1.6, (lostMm / 2) * floor.scale.pxPerMm)}
    {@const detail = (background.detailMm / 2) * floor.scale.pxPerMm}
    <circle
      cx={x}
      cy={at.y}
      r={Math.max(1, lost)}
      fill="var(--ink)"
      fill-opacity="0.16"
      stroke="var(--ink-soft)"
      stroke-width="0.75"
      pointer-events="none"
    />
    <circle cx={x} cy={at.y} r={Math.max(0.75, detail)} fill="var(--ink)" pointer-events="none" />
  {/if}
</g>
