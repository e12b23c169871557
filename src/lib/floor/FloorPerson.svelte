<script lang="ts">
  import type { Person } from '$core/setup/schema';
  import { formatLength } from '$core/words/length';
  import { getWorkspace } from '$lib/state/workspace.svelte';
  import { toPx, type FloorScale } from './geometry';
  import { movable } from './movable';
  import { nudge, snapDeg, snapMm } from './nudge';

  interface Props {
    person: Person;
    scale: FloorScale;
    named: boolean;
    onhold: () => void;
    onrelease: () => void;
  }
  let { person, scale, named, onhold, onrelease }: Props = $props();
  const workspace = getWorkspace();

  /** Head half-width below which the figure is drawn larger than life, px. */
  const leastHead = 7;
  const handleReach = 26;

  const at = $derived(toPx(scale, person.depthMm, person.lateralMm));
  const size = $derived(Math.max(leastHead, 76 * scale.pxPerMm) / 76);
  const chosen = $derived(workspace.selection.kind === 'person' && workspace.selection.id === person.id);
  const target = $derived(workspace.entry?.target.subjectId === person.id);
  const fill = $derived(person.importance === 'maySoft' ? 'var(--line)' : 'var(--raised)');
  const distance = $derived(formatLength(person.depthMm + workspace.distanceMm, workspace.unit));
  const turnWords = $derived(
    person.headYawDeg === 0
      ? 'facing the camera'
      : `head turned ${Math.abs(person.headYawDeg)}° ${person.headYawDeg > 0 ? 'right' : 'left'}`
  );

  function move() {
    let from = { depthMm: 0, lateralMm: 0 };
    return {
      start: () => {
        workspace.select({ kind: 'person', id: person.id });
        onhold();
        from = person;
      },
      move: (dx: number, dy: number, fine: boolean) =>
        void workspace.editPerson(
          person.id,
          `${person.name} moved`,
          (draft) => {
            draft.depthMm = snapMm(from.depthMm + dx / scale.pxPerMm, fine);
            draft.lateralMm = snapMm(from.lateralMm + dy / scale.pxPerMm, fine);
          },
          `drag-${person.id}`
        ),
      end: onrelease
    };
  }

  function turn() {
    let start = { x: 0, y: 0 };
    return {
      start: () => {
        onhold();
        const angle = (person.headYawDeg * Math.PI) / 180;
        start = { x: -Math.cos(angle) * handleReach, y: Math.sin(angle) * handleReach };
      },
      move: (dx: number, dy: number, fine: boolean) => {
        const angle = (Math.atan2(start.y + dy, -(start.x + dx)) * 180) / Math.PI;
        workspace.editPerson(
          person.id,
          `${person.name}’s head turned`,
          (draft) => void (draft.headYawDeg = snapDeg(angle, fine)),
          `turn-${person.id}`
        );
      },
      end: onrelease
    };
  }

  function keys(event: KeyboardEvent) {
    const by = nudge(event);
    if (!by) return;
    workspace.editPerson(
      person.id,
      by.turnDeg === 0 ? `${person.name} moved` : `${person.name}’s head turned`,
      (draft) => {
        draft.depthMm += by.depthMm;
        draft.lateralMm += by.lateralMm;
        draft.headYawDeg = snapDeg(draft.headYawDeg + by.turnDeg, true);
      },
      `keys-${person.id}-${by.turnDeg === 0 ? 'move' : 'turn'}`
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
    onfocus={() => workspace.select({ kind: 'person', id: person.id })}
    onkeydown={keys}
    onkeyup={() => workspace.app.endGesture()}
    data-testid="floor-person-{person.id}"
    {@attach movable(move)}
  >
    <circle r="13" fill="transparent" />
    <g transform="scale({size}) rotate({-person.headYawDeg})">
      <ellipse
        cx="105"
        rx="105"
        ry="215"
        transform="rotate({person.headYawDeg * 0.5})"
        {fill}
        stroke={chosen ? 'var(--pencil)' : 'var(--ink)'}
        stroke-width={1.4 / size}
      />
      <path d="M-30 0L10 -26V26Z" fill="var(--ink)" />
      <ellipse cx="80" rx="95" ry="76" fill="var(--ink)" />
    </g>
    {#if named || chosen}
      <text
        x={named ? 225 * size : -handleReach - 10}
        y={person.lateralMm < 0 && named ? -8 : named ? 12 : 4}
        text-anchor={named ? 'start' : 'end'}
        class="fill-ink text-[12px] font-medium">{person.name}</text
      >
    {/if}
  </g>
  {#if target}
    <circle r="9" fill="none" stroke="var(--pencil)" stroke-width="2" pointer-events="none" />
  {/if}
  {#if chosen}
    {@const angle = (person.headYawDeg * Math.PI) / 180}
    <g
      transform="translate({-Math.cos(angle) * handleReach} {Math.sin(angle) * handleReach})"
      class="cursor-crosshair"
      data-testid="turn-handle"
      {@attach movable(turn)}
    >
      <circle r="12" fill="transparent" />
      <circle r="4.5" fill="var(--raised)" stroke="var(--pencil)" stroke-width="2" />
    </g>
  {/if}
</g>
