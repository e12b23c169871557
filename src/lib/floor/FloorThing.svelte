<script lang="ts">
  import type { Thing } from '$core/setup/schema';
  import { formatLength } from '$core/words/length';
  import { getWorkspace } from '$lib/state/workspace.svelte';
  import { toPx, type FloorScale } from './geometry';
  import { movable } from './movable';
  import { nudge, snapMm } from './nudge';

  interface Props {
    thing: Thing;
    scale: FloorScale;
    onhold: () => void;
    onrelease: () => void;
  }
  let { thing, scale, onhold, onrelease }: Props = $props();
  const workspace = getWorkspace();

  /** Sides below this are drawn larger than life, px. */
  const leastSide = 8;

  const at = $derived(toPx(scale, thing.depthMm, thing.lateralMm));
  const across = $derived(Math.max(leastSide, thing.widthMm * scale.pxPerMm));
  const deep = $derived(Math.max(leastSide, thing.deepMm * scale.pxPerMm));
  const chosen = $derived(workspace.selection.kind === 'thing' && workspace.selection.id === thing.id);
  const target = $derived(workspace.entry?.target.subjectId === thing.id);
  const distance = $derived(formatLength(thing.depthMm + workspace.distanceMm, workspace.unit));

  function move() {
    let from = { depthMm: 0, lateralMm: 0 };
    return {
      start: () => {
        workspace.select({ kind: 'thing', id: thing.id });
        onhold();
        from = thing;
      },
      move: (dx: number, dy: number, fine: boolean) =>
        void workspace.editThing(
          thing.id,
          `${thing.name} moved`,
          (draft) => {
            draft.depthMm = snapMm(from.depthMm + dx / scale.pxPerMm, fine);
            draft.lateralMm = snapMm(from.lateralMm + dy / scale.pxPerMm, fine);
          },
          `drag-${thing.id}`
        ),
      end: onrelease
    };
  }

  function keys(event: KeyboardEvent) {
    const by = nudge(event);
    if (!by) return;
    workspace.editThing(
      thing.id,
      `${thing.name} moved`,
      (draft) => {
        draft.depthMm += by.depthMm;
        draft.lateralMm += by.lateralMm;
      },
      `keys-${thing.id}`
    );
  }
</script>

<g
  role="button"
  tabindex="0"
  aria-pressed={chosen}
  aria-label="{thing.name}, {distance} from the lens. Arrow keys move it."
  class="cursor-grab focus-visible:outline-2"
  transform="translate({at.x} {at.y})"
  onfocus={() => workspace.select({ kind: 'thing', id: thing.id })}
  onkeydown={keys}
  onkeyup={() => workspace.app.endGesture()}
  data-testid="floor-thing-{thing.id}"
  {@attach movable(move)}
>
  <circle r="13" fill="transparent" />
  <rect
    x={-deep / 2}
    y={-across / 2}
    width={deep}
    height={across}
    fill="var(--ink)"
    stroke={chosen ? 'var(--pencil)' : 'none'}
    stroke-width="2"
  />
  <text y={-across / 2 - 9} text-anchor="end" x="-4" class="fill-ink text-[12px] font-medium">{thing.name}</text>
  {#if target}<circle r="9" fill="none" stroke="var(--pencil)" stroke-width="2" />{/if}
</g>
