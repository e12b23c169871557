<script lang="ts">
  import { setupLeaving } from '$lib/state/job/leaving';
  import { Button } from 'flowbite-svelte';
  import { devicePixelRatio } from 'svelte/reactivity/window';
  import type { Plan } from '$core/call/plan';
  import { degrees } from '$core/maths/vector';
  import { angleOfView } from '$core/optics/thinLens';
  import { edgeFindings, edgeWords } from '$core/setup/edges';
  import { focusPointWords } from '$core/setup/focusPoint';
  import { pictureSize } from '$core/setup/framing';
  import type { Body, Lens } from '$core/kit/schema';
  import { callSentence } from '$core/words/call';
  import { savePicture } from '$lib/finder/export';
  import { getApp } from '$lib/state/app.svelte';
  import { Coalesced } from '$lib/state/screen/coalesce';
  import { getWorkspace } from '$lib/state/screen/workspace.svelte';
  import { asking, aspectOf, projection, screenDensity } from '../../render/request';
  import FinderBar from './FinderBar.svelte';
  import { hitAt } from './hit';
  import LensRendering, { type Shown } from './LensRendering.svelte';
  import OnceOpen from '$lib/controls/OnceOpen.svelte';
  import { keepForCard } from './keepForCard';
  import Outline from './Outline.svelte';
  import Overlays from './Overlays.svelte';
  import { finderSlot, getRenderings } from '../../workers/clients/renderer.svelte';

  interface Props {
    plan: Plan;
    body: Body;
    lens: Lens;
    width: number;
    height: number;
    loupeOpen: boolean;
  }
  let { plan, body, lens, width, height, loupeOpen = $bindable() }: Props = $props();
  const app = getApp();
  const workspace = getWorkspace();
  const pictures = getRenderings();
  const barHeight = 28;
  /** Less travel than this is a click, px. */
  const clickPx = 4;

  const setup = $derived(workspace.setup);
  const aspect = $derived(aspectOf({ setup, body }));
  const frameWidth = $derived(Math.floor(Math.min(width, (height - barHeight) * aspect)));
  const frameHeight = $derived(Math.floor(frameWidth / aspect));
  const lookedSetup = $derived(workspace.looked?.setup ?? null);
  /** What is drawn: the setup, or another way of taking it that somebody points at. */
  const drawnOf = $derived.by(() => {
    const other = lookedSetup;
    const planned = other ? app.open.planned(other) : null;
    return planned?.plan.kind === 'plan' && planned.body && planned.lens && other
      ? { setup: other, plan: planned.plan, body: planned.body, lens: planned.lens }
      : { setup, plan, body, lens };
  });
  const asked = $derived.by(() => {
    const density = screenDensity(devicePixelRatio.current);
    const size = { width: frameWidth * density, height: frameHeight * density };
    return asking(drawnOf, { slot: finderSlot, priority: 1, ...size });
  });
  const label = $derived(
    `${setup.name} through the lens at f/${drawnOf.plan.stops[drawnOf.plan.selected]?.stop.label}`
  );
  let shown = $state.raw<Shown | null>(null);
  let canvas: HTMLCanvasElement | undefined;
  let comparing = $state(false);
  let grabbed = $state(false);

  const project = $derived(projection({ setup, plan, body }));
  const pointWords = $derived.by(() => {
    const { target } = plan.stops[plan.selected] ?? {};
    if (!target?.point) return '';
    return target.recomposed ? `${focusPointWords(target.point)}, then reframe` : focusPointWords(target.point);
  });
  const lookedWords = $derived.by(() => {
    const { looked } = workspace;
    if (!looked) return '';
    const stop = drawnOf.plan.stops[drawnOf.plan.selected]?.stop.label;
    return looked.setup ? `${looked.name}, f/${stop}` : looked.name;
  });
  const edge = $derived(app.settings.now.overlays.includes('edges') ? edgeFindings(setup, project)[0] : undefined);
  const drawn = $derived.by(() => {
    if (pictures.status !== 'ready' || trouble !== '' || !shown) return '';
    const progress =
      shown.views === 0 ? 'quick preview' : shown.views < shown.of ? `rendering ${shown.views} of ${shown.of}` : '';
    return [progress, shown.reduced ? 'smaller preview: this computer renders slowly' : ''].filter(Boolean).join(', ');
  });
  const trouble = $derived.by(() => {
    if (pictures.status === 'missing') return 'This browser has no WebGL.';
    if (pictures.status === 'lost') return 'The graphics card stopped responding.';
    return pictures.failure === null ? '' : `Couldn’t draw the preview. ${pictures.failure}`;
  });
  const caption = $derived(
    [
      `${plan.focalLengthMm} mm`,
      workspace.looked ? lookedWords : pointWords,
      edge ? `${edge.name} ${edgeWords[edge.what]}` : '',
      setup.camera.focusSurface === 'curved' || (setup.camera.focusSurface === 'measured' && plan.fieldPerM)
        ? 'preview ignores field curvature'
        : '',
      drawn
    ]
      .filter(Boolean)
      .join(' · ')
  );

  function press(event: PointerEvent) {
    if (event.button !== 0) return;
    const surface = event.currentTarget as HTMLElement;
    const start = { x: event.clientX, y: event.clientY };
    const from = setup.camera;
    const picture = pictureSize(body, from);
    const perPx =
      degrees(angleOfView(plan.focalLengthMm, plan.distanceMm, picture.width, plan.pupilMagnification)) / frameWidth;
    surface.setPointerCapture(event.pointerId);
    const turns = new Coalesced((dx: number, dy: number) => {
      workspace.turnCamera(from, -dx * perPx, dy * perPx, 'reframe');
    });
    const move = (moved: PointerEvent) => {
      const dx = moved.clientX - start.x;
      const dy = moved.clientY - start.y;
      if (!grabbed && Math.hypot(dx, dy) < clickPx) return;
      grabbed = true;
      turns.push(dx, dy);
    };
    const release = (released: PointerEvent) => {
      surface.removeEventListener('pointermove', move);
      surface.removeEventListener('pointerup', release);
      surface.removeEventListener('pointercancel', release);
      turns.flush();
      if (grabbed) workspace.endGesture();
      else if (released.type === 'pointerup') choose(released, surface);
      grabbed = false;
    };
    surface.addEventListener('pointermove', move);
    surface.addEventListener('pointerup', release);
    surface.addEventListener('pointercancel', release);
  }

  function choose(event: PointerEvent, surface: HTMLElement) {
    const box = surface.getBoundingClientRect();
    const at = { x: (event.clientX - box.left) / box.width, y: (event.clientY - box.top) / box.height, aspect };
    const hit = hitAt(setup, body, project, at);
    if (!hit) return;
    if (hit.kind === 'thing') {
      workspace.selection.select({ kind: 'thing', id: hit.thingId });
      workspace.focusOn({ kind: 'thing', thingId: hit.thingId });
      return;
    }
    workspace.selection.select({ kind: 'person', id: hit.personId });
    if (hit.eye) workspace.focusOn({ kind: 'eye', personId: hit.personId, eye: hit.eye });
  }
  /** Kept once nothing has changed for so long, ms. */
  const restMs = 1500;
  let keeping: ReturnType<typeof setTimeout> | undefined;
  function keepWhenRested() {
    clearTimeout(keeping);
    const { id } = workspace.row;
    const kept = { setup, plan, body, lens };
    keeping = setTimeout(() => {
      if (canvas && workspace.setup === kept.setup) void keepForCard(app.thumbnails, canvas, id, kept);
    }, restMs);
  }
  $effect(() => () => clearTimeout(keeping));
  async function save() {
    if (!canvas) return;
    const leaving = setupLeaving(app, { setup, plan });
    await savePicture(canvas, { ...leaving, words: callSentence(leaving.plan, workspace.unit) });
  }
</script>

<div class="flex h-full flex-col">
  <FinderBar
    {caption}
    onloupe={() => (loupeOpen = true)}
    oncompare={() => (comparing = true)}
    onexport={() => void save()}
  />
  <div class="grid min-h-0 flex-1 place-items-center bg-surround">
    <!-- Dragging reframes and a click focuses; Camera and Intent are the keyboard's way to both. -->
    <!-- svelte-ignore a11y_no_static_element_interactions -->
    <div
      class="relative touch-none select-none {grabbed ? 'cursor-grabbing' : 'cursor-crosshair'}"
      style:width="{frameWidth}px"
      style:height="{frameHeight}px"
      onpointerdown={press}
      data-testid="finder"
    >
      {#if trouble !== ''}
        <Outline {setup} {plan} {body} width={frameWidth} height={frameHeight} />
        <div class="absolute inset-x-2 top-2 flex items-center gap-3 bg-ink/85 px-3 py-2 text-surface" role="status">
          <p>
            {trouble} Showing an outline instead. All numbers are still right.
          </p>
          <Button
            size="xs"
            color="alternative"
            onpointerdown={(event: Event) => event.stopPropagation()}
            onclick={() => pictures.start()}>Try again</Button
          >
        </div>
      {:else if asked}
        <LensRendering
          {asked}
          {label}
          width={frameWidth}
          height={frameHeight}
          onshown={(now, drawnOn) => {
            shown = now;
            canvas = drawnOn;
            if (now.views >= now.of && drawnOf.setup === setup) keepWhenRested();
          }}
        >
          {#snippet outline()}
            <Outline {setup} {plan} {body} width={frameWidth} height={frameHeight} plain />
          {/snippet}
        </LensRendering>
      {/if}
      <Overlays
        setup={drawnOf.setup}
        plan={drawnOf.plan}
        body={drawnOf.body}
        area={workspace.looked?.area ?? null}
        width={frameWidth}
        height={frameHeight}
        shown={app.settings.now.overlays}
        printShape={app.settings.now.printShape}
      />
    </div>
  </div>
</div>
<OnceOpen open={loupeOpen}>
  {#await import('./Loupe.svelte') then { default: Loupe }}
    <Loupe bind:open={loupeOpen} taken={{ setup, plan, body, lens }} />
  {/await}
</OnceOpen>
<OnceOpen open={comparing}>
  {#await import('./CompareDialog.svelte') then { default: CompareDialog }}
    <CompareDialog bind:open={comparing} taken={{ setup, plan, body, lens }} />
  {/await}
</OnceOpen>
