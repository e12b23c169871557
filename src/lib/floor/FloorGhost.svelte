<script lang="ts">
  import { eyeHeight } from '$core/people/anatomy';
  import { viewpoint } from '$core/setup/scene';
  import { getWorkspace } from '$lib/state/screen/workspace.svelte';
  import { getFloor } from './floor.svelte';
  import { toPx } from '../../drawing/geometry';

  /** A change being considered: where everybody and the camera would be, with the way there. */
  const workspace = getWorkspace();
  const floor = getFloor();
  const preview = $derived(workspace.preview);

  /** Height at which backgrounds are drawn from the side, mm. */
  const heightShown = 1300;

  interface Move {
    readonly key: string;
    readonly from: { x: number; y: number } | null;
    readonly to: { x: number; y: number };
    readonly degrees: number;
  }

  const moves = $derived.by((): Move[] => {
    if (!preview) return [];
    const { scale } = floor;
    const above = floor.side === 'above';
    const { setup } = workspace;
    const eyesAt = (person: (typeof setup.people)[number]) =>
      toPx(
        scale,
        person.depthMm,
        above ? person.lateralMm : person.floorMm + eyeHeight(person.statureMm, person.posture, person.being)
      );
    return preview.people.flatMap((person): Move[] => {
      const before = setup.people.find((item) => item.id === person.id);
      const same =
        before &&
        before.depthMm === person.depthMm &&
        before.lateralMm === person.lateralMm &&
        before.floorMm === person.floorMm &&
        before.headYawDeg === person.headYawDeg;
      if (same) return [];
      return [{ key: person.id, from: before ? eyesAt(before) : null, to: eyesAt(person), degrees: person.headYawDeg }];
    });
  });
  const grounds = $derived.by(() =>
    (preview?.backgrounds ?? []).flatMap((item) => {
      const before = workspace.setup.backgrounds.find((other) => other.id === item.id);
      if (!before || (before.depthMm === item.depthMm && before.lateralMm === item.lateralMm)) return [];
      const at = (of: typeof item) =>
        toPx(floor.scale, of.depthMm, floor.side === 'above' ? of.lateralMm : heightShown);
      return [{ id: item.id, from: at(before), to: at(item) }];
    })
  );
  const camera = $derived.by(() => {
    if (!preview) return null;
    const { body, lens } = workspace.app.open.planned(preview);
    if (!body) return null;
    const { distance } = viewpoint(preview, body, lens?.pupilMagnification);
    const at = (depth: number, of: typeof preview.camera) =>
      toPx(floor.scale, -depth, floor.side === 'above' ? of.lateralMm : of.heightMm);
    const to = at(distance, preview.camera);
    const from = at(workspace.distanceMm, workspace.setup.camera);
    const turned =
      preview.camera.yawDeg !== workspace.setup.camera.yawDeg ||
      preview.camera.pitchDeg !== workspace.setup.camera.pitchDeg;
    if (!turned && Math.hypot(to.x - from.x, to.y - from.y) < 0.5) return null;
    return { from, to, angle: floor.side === 'above' ? preview.camera.yawDeg : -preview.camera.pitchDeg };
  });
</script>

{#if preview}
  <g pointer-events="none" fill="none" stroke="var(--pencil)" data-testid="preview">
    {#each moves as move (move.key)}
      {#if move.from}
        <path d="M{move.from.x} {move.from.y}L{move.to.x} {move.to.y}" stroke-width="1.25" />
      {/if}
      <g transform="translate({move.to.x} {move.to.y}) rotate({-move.degrees})">
        <ellipse cx="8" rx="9" ry="8" stroke-width="1.5" stroke-dasharray="3 2" />
        <path d="M-3 0L1 -3V3Z" fill="var(--pencil)" />
      </g>
    {/each}
    {#each grounds as ground (ground.id)}
      <path d="M{ground.from.x} {ground.from.y}L{ground.to.x} {ground.to.y}" stroke-width="1.25" />
      <path d="M{ground.to.x} {ground.to.y - 26}v52" stroke-width="4" stroke-dasharray="3 2" />
    {/each}
    {#if camera}
      <path d="M{camera.from.x} {camera.from.y}L{camera.to.x} {camera.to.y}" stroke-width="1.25" />
      <path
        d="M-24 -10h15v20h-15zM-9 -5.5h9v11h-9z"
        transform="translate({camera.to.x} {camera.to.y}) rotate({camera.angle})"
        stroke-width="1.5"
        stroke-dasharray="3 2"
      />
    {/if}
  </g>
{/if}
