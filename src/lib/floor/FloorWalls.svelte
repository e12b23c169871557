<script lang="ts">
  import { formatLength } from '$core/units/length';
  import { getWorkspace } from '$lib/state/screen/workspace.svelte';
  import { type Wall } from '$lib/state/screen/selection.svelte';
  import { getFloor } from './floor.svelte';
  import { toPx } from '../../drawing/geometry';
  import { movable } from './movable';
  import { nudge, snapMm } from './nudge';

  const workspace = getWorkspace();
  const floor = getFloor();

  const names: Readonly<Record<Wall, string>> = {
    backUpMm: 'Wall behind you',
    behindMm: 'Wall behind the people',
    sideMm: 'Wall beside you'
  };

  interface Drawn {
    readonly wall: Wall;
    readonly d: string;
    /** px per mm of room along the drag; across for the side wall. */
    readonly along: 'x' | 'y';
    readonly sign: 1 | -1;
    readonly mm: number;
    readonly key: string;
  }

  const drawn = $derived.by((): Drawn[] => {
    const { place, people, camera } = workspace.setup;
    const { scale, side, width, height } = floor;
    const across = (wall: Wall, mm: number, depthMm: number, sign: 1 | -1): Drawn => {
      const { x } = toPx(scale, depthMm, 0);
      return { wall, mm, d: `M${x} 30V${height - 24}`, along: 'x', sign, key: wall };
    };
    const list: Drawn[] = [];
    if (place.backUpMm !== null) list.push(across('backUpMm', place.backUpMm, -place.backUpMm, -1));
    if (place.behindMm !== null && people.length > 0) {
      const furthest = Math.max(...people.map((person) => person.depthMm));
      list.push(across('behindMm', place.behindMm, furthest + place.behindMm, 1));
    }
    const { sideMm } = place;
    if (sideMm !== null && side === 'above') {
      for (const sign of [-1, 1] as const) {
        const { y } = toPx(scale, 0, camera.lateralMm + sign * sideMm);
        list.push({ wall: 'sideMm', mm: sideMm, d: `M0 ${y}H${width}`, along: 'y', sign, key: `side${sign}` });
      }
    }
    return list;
  });

  function set(wall: Wall, mm: number, gesture: string) {
    const least = wall === 'backUpMm' ? 50 : 0;
    workspace.edit(names[wall], (draft) => void (draft.place[wall] = Math.max(least, mm)), gesture);
  }

  function move({ wall, along, sign, mm }: Drawn) {
    return {
      start: () => {
        workspace.selection.select({ kind: 'wall', id: wall });
        floor.hold();
      },
      move: (dx: number, dy: number, fine: boolean) => {
        const by = ((along === 'x' ? dx : dy) * sign) / floor.scale.pxPerMm;
        set(wall, snapMm(mm + by, fine), `drag-${wall}`);
        floor.pointed = `${names[wall]}: ${formatLength(workspace.setup.place[wall] ?? 0, workspace.unit)}`;
      },
      end: () => floor.release()
    };
  }

  function keys(event: KeyboardEvent, { wall, along, sign, mm }: Drawn) {
    const by = nudge(event);
    if (by) set(wall, mm + (along === 'x' ? by.depthMm : by.lateralMm) * sign, `keys-${wall}`);
  }
</script>

{#each drawn as item (item.key)}
  {@const chosen = workspace.isSelected('wall', item.wall)}
  <g
    role="button"
    tabindex="0"
    aria-pressed={chosen}
    aria-label="{names[item.wall]}, {formatLength(item.mm, workspace.unit)} of room. Arrow keys move it."
    class="cursor-grab focus-visible:outline-2"
    onkeydown={(event) => keys(event, item)}
    onkeyup={() => workspace.endGesture()}
    onpointerenter={() => (floor.pointed = `${names[item.wall]}: ${formatLength(item.mm, workspace.unit)} of room`)}
    onpointerleave={() => (floor.pointed = '')}
    data-testid="floor-wall-{item.key}"
    {@attach movable(() => move(item))}
  >
    <path d={item.d} stroke="transparent" stroke-width="12" />
    <path d={item.d} stroke={chosen ? 'var(--pencil)' : 'var(--ink)'} stroke-width="3" />
  </g>
{/each}
