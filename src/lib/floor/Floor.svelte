<script lang="ts">
  import { zoneSplitWords } from '$core/words/call';
  import { formatLength, formatLengthExactly } from '$core/words/length';
  import { getWorkspace } from '$lib/state/workspace.svelte';
  import FloorPerson from './FloorPerson.svelte';
  import FloorThing from './FloorThing.svelte';
  import { axisTicks, floorScale, framePath, planePath, toPx, zonePath } from './geometry';
  import { movable } from './movable';
  import { nudge, snapMm } from './nudge';

  let { height }: { height: number } = $props();
  const workspace = getWorkspace();
  const id = $props.id();
  let width = $state(560);
  /** The scale stands still while something is dragged. */
  let held = $state.raw<{ scale: ReturnType<typeof floorScale>; distanceMm: number } | null>(null);

  const setup = $derived(workspace.setup);
  const plan = $derived(workspace.plan);
  const entry = $derived(workspace.entry);
  const view = $derived(workspace.view);
  const distanceMm = $derived(workspace.distanceMm);
  const scale = $derived(held?.scale ?? floorScale(setup, distanceMm, Math.max(200, width), height));
  const placed = $derived(view ? { scale, view } : null);
  const camera = $derived(toPx(scale, -distanceMm, setup.camera.lateralMm));
  const far = $derived(entry?.farMm ?? Infinity);
  const selection = $derived(workspace.selection);
  const named = $derived(setup.people.length <= 6);
  const zoneLabelX = $derived(
    entry
      ? Math.min(width - 150, Math.max(60, scale.originX + (entry.target.focusDistanceMm - distanceMm) * scale.pxPerMm))
      : 0
  );

  function hold() {
    held = { scale, distanceMm };
  }
  function release() {
    held = null;
    workspace.app.endGesture();
  }

  const moveCamera = $derived.by(() => {
    let from = { distanceMm: 0, lateralMm: 0 };
    return {
      start: () => {
        workspace.select({ kind: 'camera' });
        hold();
        from = { distanceMm, lateralMm: setup.camera.lateralMm };
      },
      move: (dx: number, dy: number, fine: boolean) => {
        const to = snapMm(from.distanceMm - dx / scale.pxPerMm, fine);
        const lateral = snapMm(from.lateralMm + dy / scale.pxPerMm, fine);
        workspace.edit(
          'Camera moved',
          (draft) => {
            draft.camera.placement = { kind: 'distance', distanceMm: Math.max(100, to) };
            draft.camera.lateralMm = lateral;
          },
          'drag-camera'
        );
      },
      end: release
    };
  });

  function moveBackground(id: string) {
    let from = { depthMm: 0, lateralMm: 0 };
    return {
      start: () => {
        workspace.select({ kind: 'background', id });
        hold();
        from = setup.backgrounds.find((item) => item.id === id) ?? from;
      },
      move: (dx: number, dy: number, fine: boolean) =>
        void workspace.editBackground(
          id,
          'Background moved',
          (draft) => {
            draft.depthMm = snapMm(from.depthMm + dx / scale.pxPerMm, fine);
            draft.lateralMm = snapMm(from.lateralMm + dy / scale.pxPerMm, fine);
          },
          `drag-${id}`
        ),
      end: release
    };
  }

  function cameraKeys(event: KeyboardEvent) {
    const by = nudge(event);
    if (!by) return;
    workspace.edit(
      'Camera moved',
      (draft) => {
        draft.camera.placement = { kind: 'distance', distanceMm: Math.max(100, distanceMm - by.depthMm) };
        draft.camera.lateralMm += by.lateralMm;
        draft.camera.yawDeg = Math.max(-80, Math.min(80, draft.camera.yawDeg + by.turnDeg));
      },
      'keys-camera'
    );
  }

  function backgroundKeys(event: KeyboardEvent, id: string) {
    const by = nudge(event);
    if (!by) return;
    workspace.editBackground(
      id,
      'Background moved',
      (draft) => {
        draft.depthMm += by.depthMm;
        draft.lateralMm += by.lateralMm;
      },
      `keys-${id}`
    );
  }
</script>

<div class="relative overflow-hidden bg-raised" bind:clientWidth={width} style:height="{height}px" data-testid="floor">
  <svg {width} {height} role="group" aria-label="Floor, seen from above" class="block touch-none select-none">
    {#if placed && plan && workspace.body}
      <path d={framePath(placed, setup, workspace.body, plan)} fill="var(--ink)" opacity="0.055" />
    {/if}
    <g>
      {#each axisTicks(scale, held?.distanceMm ?? distanceMm, workspace.unit) as tick (tick.label)}
        <path d="M{tick.x} 30V{height - 22}" stroke="var(--line)" stroke-width="1" opacity="0.6" />
        <text x={tick.x} y={height - 8} text-anchor="middle" class="fill-soft text-[11px]">{tick.label}</text>
      {/each}
    </g>
    <clipPath id="{id}-plot"><rect y="26" {width} height={Math.max(0, height - 48)} /></clipPath>
    {#if placed && entry}
      <g clip-path="url(#{id}-plot)">
        <path d={zonePath(placed, entry.nearMm, far)} fill="var(--cool)" opacity="0.2" data-testid="sharp-zone" />
        <path
          d="{planePath(placed, entry.nearMm)}{far < scale.extentMm * 3 ? planePath(placed, far) : ''}"
          fill="none"
          stroke="var(--cool)"
          stroke-width="0.75"
        />
        <path
          d={planePath(placed, entry.target.focusDistanceMm)}
          fill="none"
          stroke="var(--cool)"
          stroke-width="1.5"
          stroke-dasharray="5 4"
          data-testid="focus-plane"
        />
      </g>
    {/if}

    {#each setup.backgrounds as background, index (background.id)}
      {@const at = toPx(scale, background.depthMm, background.lateralMm)}
      {@const off = at.x > width - 14}
      {@const x = Math.min(width - 14, at.x)}
      {@const half = Math.min(60, height * 0.24)}
      {@const chosen = selection.kind === 'background' && selection.id === background.id}
      <g
        role="button"
        tabindex="0"
        aria-pressed={chosen}
        aria-label="{background.name}, {formatLength(
          background.depthMm + distanceMm,
          workspace.unit
        )} from the lens. Arrow keys move it."
        class="cursor-grab focus-visible:outline-2"
        onfocus={() => workspace.select({ kind: 'background', id: background.id })}
        onkeydown={(event) => backgroundKeys(event, background.id)}
        onkeyup={() => workspace.app.endGesture()}
        {@attach movable(() => moveBackground(background.id))}
      >
        <rect x={x - 9} y={at.y - half} width="18" height={half * 2} fill="transparent" />
        <path
          d="M{x} {at.y - half}V{at.y + half}"
          stroke={chosen ? 'var(--pencil)' : 'var(--ink-soft)'}
          stroke-width="5"
          stroke-dasharray={background.wish === 'hide' ? '2 3' : background.wish === 'hint' ? '8 3' : undefined}
        />
        <text
          {x}
          y={at.y + half + 14 + (index % 2) * 12}
          text-anchor={x > width - 70 ? 'end' : 'middle'}
          class="fill-ink text-[11.5px]"
        >
          {background.name}{off ? ` ${formatLength(background.depthMm + distanceMm, workspace.unit)} →` : ''}
        </text>
      </g>
    {/each}

    {#each setup.things as thing (thing.id)}
      <FloorThing {thing} {scale} onhold={hold} onrelease={release} />
    {/each}

    {#each setup.people as person (person.id)}
      <FloorPerson {person} {scale} {named} onhold={hold} onrelease={release} />
    {/each}

    <g
      role="button"
      tabindex="0"
      aria-pressed={selection.kind === 'camera'}
      aria-label="Camera, {formatLengthExactly(
        distanceMm,
        workspace.unit
      )} from the subject. Arrow keys move it, comma and full stop turn it."
      class="cursor-grab focus-visible:outline-2"
      onfocus={() => workspace.select({ kind: 'camera' })}
      onkeydown={cameraKeys}
      onkeyup={() => workspace.app.endGesture()}
      transform="translate({camera.x} {camera.y}) rotate({setup.camera.yawDeg})"
      data-testid="floor-camera"
      {@attach movable(() => moveCamera)}
    >
      <rect x="-26" y="-15" width="34" height="30" fill="transparent" />
      <path
        d="M-24 -10h15v20h-15zM-9 -5.5h9v11h-9z"
        fill={selection.kind === 'camera' ? 'var(--pencil)' : 'var(--ink)'}
        stroke-linejoin="round"
      />
    </g>

    {#if entry}
      <text x={zoneLabelX} y="18" text-anchor="middle" class="fill-cool text-[12px] font-medium">
        sharp {formatLengthExactly(entry.nearMm, workspace.unit)} – {entry.farMm === null
          ? '∞'
          : formatLengthExactly(entry.farMm, workspace.unit)}
        <title>{zoneSplitWords(entry, workspace.unit)}</title>
      </text>
    {/if}
  </svg>
</div>
