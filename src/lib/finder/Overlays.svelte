<script lang="ts">
  import type { Plan } from '$core/call/plan';
  import { radians } from '$core/maths/vector';
  import { verdict } from '$core/optics/sharpness';
  import { edgeFindings } from '$core/setup/edges';
  import { pointBox } from '$core/setup/focusArea';
  import { focusPoints, gridInUse } from '$core/setup/focusPoint';
  import type { FrameArea } from '$core/setup/lineOfSight';
  import type { Body } from '$core/kit/schema';
  import type { Setup } from '$core/setup/schema';
  import { croppedTo, type PrintShape } from '$core/setup/shapes';
  import type { Overlay } from '$lib/data';
  import { projection, roundOf } from '../../render/request';

  interface Props {
    setup: Setup;
    plan: Plan;
    body: Body;
    width: number;
    height: number;
    shown: readonly Overlay[];
    printShape: PrintShape;
    /** Where autofocus would look, by the way of focusing that is pointed at. */
    area?: FrameArea | null;
  }
  let { setup, plan, body, width, height, shown, printShape, area = null }: Props = $props();

  const entry = $derived(plan.stops[plan.selected]);
  const project = $derived(projection({ setup, plan, body }));
  const points = $derived(
    shown.includes('points') ? focusPoints(gridInUse(body.focusGrid, setup.camera), setup.camera.orientation) : []
  );
  /** Where the named point lies against what is ringed: the same place, or a little off. */
  const usedAt = $derived.by(() => {
    const { target } = entry ?? {};
    return target?.point && !target.recomposed ? pointBox({ body, camera: setup.camera }, target.point) : null;
  });
  const cropBox = (shape: PrintShape) => {
    const left = croppedTo(shape, { width, height });
    const [w, h] = [left.width * width, left.height * height];
    return { shape, x: (width - w) / 2, y: (height - h) / 2, w, h };
  };
  const ordered = $derived(setup.intent.shapes.map(cropBox));
  /** The frames of a stitched view, in the order they are taken. */
  const round = $derived(roundOf({ setup, plan, body })?.frames ?? []);
  const targets = $derived.by(() => {
    const { target } = entry ?? {};
    const subject = plan.subjects.find((item) => item.id === target?.subjectId);
    const at = target?.position ? project(target.position) : undefined;
    return at ? [{ ...at, r: Math.max(11, (subject?.kind === 'person' ? 24 : 40) * at.scale * width) }] : [];
  });
  /** The point to focus with, which lies on what is ringed; the centre one where none does. */
  const used = $derived(entry?.target.point ?? null);
  const soft = $derived(
    plan.subjects.flatMap((subject, index) =>
      subject.importance === 'maySoft'
        ? []
        : subject.points.flatMap((point, place) => {
            const ratio = entry?.sharpness[index]?.[place]?.ratio ?? 0;
            const at = point.required && verdict(ratio) !== 'sharp' ? project(point.position) : undefined;
            return at ? [{ key: `${subject.id}-${point.role}`, ...at }] : [];
          })
    )
  );
  const edges = $derived(shown.includes('edges') ? edgeFindings(setup, project) : []);
  const crop = $derived(cropBox(printShape));
  /** Where the level through the lens cuts the picture. */
  const levelY = $derived.by(() => {
    const offset = Math.tan(radians(setup.camera.pitchDeg)) * plan.focalLengthMm;
    const framedMm = (plan.framedHeightMm * plan.focalLengthMm) / plan.distanceMm;
    return height * (0.5 + offset / framedMm);
  });
</script>

<svg {width} {height} class="pointer-events-none absolute inset-0" aria-hidden="true" data-testid="marks">
  {#if shown.includes('thirds')}
    <path
      d="M{width / 3} 0V{height}M{(width * 2) / 3} 0V{height}M0 {height / 3}H{width}M0 {(height * 2) / 3}H{width}"
      stroke="#fff"
      stroke-opacity="0.24"
    />
  {/if}
  {#each points as point (`${point.right} ${point.up}`)}
    {@const chosen = point.right === used?.right && point.up === used.up}
    <rect
      x={point.x * width - 4}
      y={point.y * height - 3}
      width="8"
      height="6"
      fill="none"
      stroke={chosen ? '#c2341d' : '#fff'}
      stroke-opacity={chosen ? 1 : 0.26}
      stroke-width={chosen ? 2 : 1}
    />
  {/each}
  {#if usedAt && shown.includes('points')}
    <rect
      x={usedAt.left * width}
      y={usedAt.top * height}
      width={(usedAt.right - usedAt.left) * width}
      height={(usedAt.bottom - usedAt.top) * height}
      fill="none"
      stroke="#c2341d"
      stroke-width="1.5"
      data-testid="point-used"
    />
  {/if}
  {#each ordered as crop (crop.shape)}
    <rect
      x={crop.x}
      y={crop.y}
      width={crop.w}
      height={crop.h}
      fill="none"
      stroke="#fff"
      stroke-opacity="0.75"
      stroke-dasharray="7 4"
    />
    <text x={crop.x + 5} y={crop.y + 14} fill="#fff" class="text-[11px]">{crop.shape}</text>
  {/each}
  {#each round as { box, column, row }, index (`${column} ${row}`)}
    <rect
      x={box.left * width}
      y={box.top * height}
      width={(box.right - box.left) * width}
      height={(box.bottom - box.top) * height}
      fill="none"
      stroke="#fff"
      stroke-opacity={index === 0 ? 1 : 0.5}
      stroke-width={index === 0 ? 2 : 1}
      data-testid="stitch-frame"
    />
    <text
      x={((box.left + box.right) / 2) * width}
      y={((box.top + box.bottom) / 2) * height + 4}
      text-anchor="middle"
      fill="#fff"
      class="text-[11px]">{index + 1}</text
    >
  {/each}
  {#if area}
    <rect
      x={Math.max(1, area.left * width)}
      y={Math.max(1, area.top * height)}
      width={Math.min(width - 1, area.right * width) - Math.max(1, area.left * width)}
      height={Math.min(height - 1, area.bottom * height) - Math.max(1, area.top * height)}
      fill="#fff"
      fill-opacity="0.1"
      stroke="#fff"
      stroke-width="2"
      data-testid="focus-area"
    />
  {/if}
  {#if shown.includes('crop')}
    <path
      d="M0 0H{width}V{height}H0ZM{crop.x} {crop.y}V{crop.y + crop.h}H{crop.x + crop.w}V{crop.y}Z"
      fill="#000"
      fill-opacity="0.45"
      fill-rule="evenodd"
    />
  {/if}
  {#if shown.includes('level')}
    <path d="M0 {levelY}H{width}" stroke="#fff" stroke-opacity="0.8" stroke-dasharray="10 6" />
  {/if}
  {#each soft as eye (eye.key)}
    <circle
      cx={eye.x * width}
      cy={eye.y * height}
      r={Math.max(9, 18 * eye.scale * width)}
      fill="none"
      stroke="#fff"
      stroke-opacity="0.85"
      stroke-dasharray="3 3"
    />
  {/each}
  {#each edges as finding (finding.personId)}
    {@const person = setup.people.find((item) => item.id === finding.personId)}
    {@const at =
      person && project({ x: person.lateralMm, y: person.floorMm + person.statureMm * 0.93, z: person.depthMm })}
    {#if at}
      <circle
        cx={Math.min(width - 8, Math.max(8, at.x * width))}
        cy={Math.min(height - 8, Math.max(8, at.y * height))}
        r="7"
        fill="#fff"
        fill-opacity="0.9"
      />
      <text
        x={Math.min(width - 8, Math.max(8, at.x * width))}
        y={Math.min(height - 8, Math.max(8, at.y * height)) + 4}
        text-anchor="middle"
        class="text-[11px] font-bold"
        fill="#141414">!</text
      >
    {/if}
  {/each}
  {#each targets as target (target.r)}
    <circle
      cx={target.x * width}
      cy={target.y * height}
      r={target.r}
      fill="none"
      stroke="#c2341d"
      stroke-width="2.5"
      data-testid="target-ring"
    />
  {/each}
</svg>
