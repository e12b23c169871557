<script lang="ts">
  import type { Person } from '$core/setup/schema';
  import { eyeHeight } from '$core/people/anatomy';
  import { formatLength } from '$core/units/length';
  import { getWorkspace } from '$lib/state/screen/workspace.svelte';
  import { getFloor } from './floor.svelte';
  import FloorHandle from './FloorHandle.svelte';
  import { toPx } from '../../drawing/geometry';
  import { movable } from './movable';
  import { nudge, snapDeg } from './nudge';

  let { person, named }: { person: Person; named: boolean } = $props();
  const workspace = getWorkspace();
  const floor = getFloor();

  /** Head half-width below which the figure is drawn larger than life, px. */
  const leastHead = 7;
  const headReach = 27;
  const bodyReach = 36;

  const selection = $derived({ kind: 'person', id: person.id } as const);
  const { scale, side } = $derived(floor);
  const eyes = $derived(person.floorMm + eyeHeight(person.statureMm, person.posture, person.being));
  const at = $derived(toPx(scale, person.depthMm, side === 'above' ? person.lateralMm : eyes));
  const size = $derived(Math.max(leastHead, 76 * scale.pxPerMm) / 76);
  const chosen = $derived(workspace.isSelected('person', person.id));
  const alone = $derived(chosen && workspace.selection.items.length === 1);
  const target = $derived(workspace.entry?.target.subjectId === person.id);
  const fill = $derived(person.importance === 'maySoft' ? 'var(--line)' : 'var(--raised)');
  const stroke = $derived(chosen ? 'var(--pencil)' : 'var(--ink)');
  /** Beside the figure, on the side away from the neighbour, and clear of the handle of the shoulders. */
  const nameY = $derived.by(() => {
    const lower = person.lateralMm >= 0;
    const y = lower ? 12 : -8;
    const handleY = -Math.sin((person.bodyYawDeg * Math.PI) / 180) * (bodyReach + 130 * size);
    const covered = alone && Math.abs(handleY - (y - 4)) < 12;
    return covered ? y + (lower ? 10 : -10) : y;
  });
  const floorY = $derived(toPx(scale, 0, person.floorMm).y - at.y);
  const distance = $derived(formatLength(person.depthMm + workspace.distanceMm, workspace.unit));
  const turnWords = $derived(
    person.headYawDeg === 0
      ? 'facing the camera'
      : `head turned ${Math.abs(person.headYawDeg)}° ${person.headYawDeg > 0 ? 'right' : 'left'}`
  );

  function turn(key: 'headYawDeg' | 'bodyYawDeg', reach: number, back: boolean) {
    const sign = back ? -1 : 1;
    let start = { x: 0, y: 0 };
    return {
      start: () => {
        floor.hold();
        const angle = (person[key] * Math.PI) / 180;
        start = { x: -Math.cos(angle) * reach * sign, y: Math.sin(angle) * reach * sign };
      },
      move: (dx: number, dy: number, fine: boolean) => {
        const angle = (Math.atan2((start.y + dy) * sign, -(start.x + dx) * sign) * 180) / Math.PI;
        workspace.editPerson(
          person.id,
          key === 'headYawDeg' ? `${person.name}’s head turned` : `${person.name}’s shoulders turned`,
          (draft) => void (draft[key] = snapDeg(angle, fine)),
          `${key}-${person.id}`
        );
        floor.pointed = `${key === 'headYawDeg' ? 'head' : 'shoulders'} ${person[key]}°`;
      },
      end: () => floor.release()
    };
  }

  function keys(event: KeyboardEvent) {
    const by = nudge(event);
    if (!by) return;
    if (by.turnDeg === 0 && by.bodyTurnDeg === 0) {
      floor.nudged(selection, by);
      return;
    }
    workspace.editPerson(
      person.id,
      `${person.name} turned`,
      (draft) => {
        draft.headYawDeg = snapDeg(draft.headYawDeg + by.turnDeg, true);
        draft.bodyYawDeg = snapDeg(draft.bodyYawDeg + by.bodyTurnDeg, true);
      },
      `keys-${person.id}-turn`
    );
  }
</script>

<g transform="translate({at.x} {at.y})">
  <g
    role="button"
    tabindex="0"
    aria-pressed={chosen}
    aria-label="{person.name}, {distance} from the lens, {turnWords}. Arrow keys move, comma and full stop turn the head."
    class="cursor-grab focus-visible:outline-2"
    onfocus={() => !chosen && workspace.selection.select(selection)}
    onkeydown={keys}
    onkeyup={() => workspace.endGesture()}
    onpointerenter={() => (floor.pointed = `${person.name} ${distance}`)}
    onpointerleave={() => (floor.pointed = '')}
    data-testid="floor-person-{person.id}"
    {@attach movable(() => floor.moving(selection, () => `${person.name} ${distance}`))}
  >
    <circle r="13" fill="transparent" />
    {#if side === 'above'}
      <g transform="scale({size})">
        <ellipse
          cx="105"
          rx="105"
          ry="215"
          transform="rotate({-person.bodyYawDeg} 80 0)"
          {fill}
          {stroke}
          stroke-width={1.4 / size}
        />
        <g transform="rotate({-person.headYawDeg})">
          <path d="M-30 0L10 -26V26Z" fill="var(--ink)" />
          <ellipse cx="80" rx="95" ry="76" fill="var(--ink)" />
        </g>
      </g>
    {:else}
      {@const head = Math.max(5, 120 * scale.pxPerMm)}
      <path
        d="M{head * 0.9} {head}C{head * 2} {head * 1.6} {head * 2} {floorY * 0.5} {head * 1.5} {floorY}H{head *
          0.3}C{-head * 0.2} {floorY * 0.5} {-head * 0.2} {head * 1.6} {head * 0.5} {head}Z"
        {fill}
        {stroke}
        stroke-width="1.4"
      />
      <path d="M{-head * 0.3} 0L{head * 0.2} {-head * 0.3}V{head * 0.3}Z" fill="var(--ink)" />
      <ellipse cx={head * 0.8} rx={head * 0.85} ry={head} fill="var(--ink)" />
      {#if person.floorMm !== 0}
        <path
          d="M{-head * 0.4} {floorY}H{head * 2.3}V{floorY + person.floorMm * scale.pxPerMm}H{-head * 0.4}Z"
          fill="var(--line)"
          stroke="var(--ink-soft)"
          stroke-width="0.75"
        />
      {/if}
    {/if}
    {#if named || chosen}
      <text
        x={named ? 225 * size : -headReach - 10}
        y={side === 'side' ? -10 - 130 * size : named ? nameY : 4}
        text-anchor={named ? 'start' : 'end'}
        class="floor-text text-[12px] font-medium">{person.name}</text
      >
    {/if}
  </g>
  {#if target}
    <circle r="9" fill="none" stroke="var(--pencil)" stroke-width="2" pointer-events="none" />
  {/if}
  {#if alone && side === 'above'}
    <FloorHandle
      degrees={person.headYawDeg}
      reach={headReach}
      testid="turn-handle"
      turn={() => turn('headYawDeg', headReach, false)}
    />
    <FloorHandle
      degrees={person.bodyYawDeg}
      reach={-(bodyReach + 130 * size)}
      hollow
      testid="body-handle"
      turn={() => turn('bodyYawDeg', bodyReach + 130 * size, true)}
    />
  {/if}
</g>
