<script lang="ts">
  import { formatLengthExactly } from '$core/units/length';
  import { getWorkspace } from '$lib/state/screen/workspace.svelte';
  import { getFloor } from './floor.svelte';
  import FloorHandle from './FloorHandle.svelte';
  import { toPx } from '../../drawing/geometry';
  import { movable } from './movable';
  import { nudge, snapDistance, snapMm } from './nudge';

  const workspace = getWorkspace();
  const floor = getFloor();
  const handleReach = 46;

  const camera = $derived(workspace.setup.camera);
  const distanceMm = $derived(workspace.distanceMm);
  const above = $derived(floor.side === 'above');
  const at = $derived(toPx(floor.scale, -distanceMm, above ? camera.lateralMm : camera.heightMm));
  /** On the screen clockwise: turned to the picture's right, or tilted up. */
  const angle = $derived(above ? camera.yawDeg : -camera.pitchDeg);
  const chosen = $derived(workspace.isSelected('camera', ''));
  const clamp = (degrees: number) => Math.max(-80, Math.min(80, degrees));
  const place = (mm: number) => ({ kind: 'distance', distanceMm: Math.max(100, mm) }) as const;

  function move() {
    let from = { distanceMm: 0, lateralMm: 0, heightMm: 0 };
    return {
      start: () => {
        workspace.selection.select({ kind: 'camera' });
        floor.hold();
        from = { distanceMm, lateralMm: camera.lateralMm, heightMm: camera.heightMm };
      },
      move: (dx: number, dy: number, fine: boolean) => {
        const { pxPerMm } = floor.scale;
        workspace.edit(
          'Camera moved',
          (draft) => {
            const to = snapDistance(from.distanceMm - dx / pxPerMm, pxPerMm, fine);
            if (to !== Math.round(from.distanceMm) && Math.abs(dx) > 1) draft.camera.placement = place(to);
            if (above) draft.camera.lateralMm = snapMm(from.lateralMm + dy / pxPerMm, fine);
            else draft.camera.heightMm = Math.max(0, snapMm(from.heightMm - dy / pxPerMm, fine));
          },
          'drag-camera'
        );
        floor.pointed = `lens ${formatLengthExactly(workspace.distanceMm, workspace.unit)} from the subject`;
      },
      end: () => floor.release()
    };
  }

  function turn() {
    let start = { x: 0, y: 0 };
    return {
      start: () => {
        floor.hold();
        const radians = (angle * Math.PI) / 180;
        start = { x: Math.cos(radians) * handleReach, y: Math.sin(radians) * handleReach };
      },
      move: (dx: number, dy: number, fine: boolean) => {
        const degrees = (Math.atan2(start.y + dy, start.x + dx) * 180) / Math.PI;
        const step = fine ? 0.1 : 1;
        const to = clamp(Math.round(degrees / step) * step + 0);
        workspace.edit(
          above ? 'Camera turned' : 'Camera tilted',
          (draft) => {
            if (above) draft.camera.yawDeg = to;
            else draft.camera.pitchDeg = -to + 0;
          },
          'turn-camera'
        );
        floor.pointed = above ? `turned ${camera.yawDeg}°` : `tilted ${camera.pitchDeg}°`;
      },
      end: () => floor.release()
    };
  }

  function keys(event: KeyboardEvent) {
    const by = nudge(event);
    if (!by) return;
    workspace.edit(
      'Camera moved',
      (draft) => {
        if (by.depthMm !== 0) draft.camera.placement = place(distanceMm - by.depthMm);
        if (above) draft.camera.lateralMm += by.lateralMm;
        else draft.camera.heightMm = Math.max(0, draft.camera.heightMm - by.lateralMm);
        const turn = by.turnDeg / 5;
        if (above) draft.camera.yawDeg = clamp(draft.camera.yawDeg + turn);
        else draft.camera.pitchDeg = clamp(draft.camera.pitchDeg + turn);
      },
      'keys-camera'
    );
  }
</script>

<g transform="translate({at.x} {at.y})">
  <g
    role="button"
    tabindex="0"
    aria-pressed={chosen}
    aria-label="Camera, {formatLengthExactly(
      distanceMm,
      workspace.unit
    )} from the subject. Arrow keys move it, comma and full stop turn it."
    class="cursor-grab focus-visible:outline-2"
    onfocus={() => !chosen && workspace.selection.select({ kind: 'camera' })}
    onkeydown={keys}
    onkeyup={() => workspace.endGesture()}
    onpointerenter={() => (floor.pointed = `lens ${formatLengthExactly(distanceMm, workspace.unit)} from the subject`)}
    onpointerleave={() => (floor.pointed = '')}
    data-testid="floor-camera"
    transform="rotate({angle})"
    {@attach movable(move)}
  >
    <rect x="-26" y="-15" width="34" height="30" fill="transparent" />
    <path
      d="M-24 -10h15v20h-15zM-9 -5.5h9v11h-9z"
      fill={chosen ? 'var(--pencil)' : 'var(--ink)'}
      stroke-linejoin="round"
    />
  </g>
  {#if chosen && workspace.selection.items.length === 1}
    <FloorHandle degrees={180 - angle} reach={handleReach} testid="camera-handle" {turn} />
  {/if}
</g>
