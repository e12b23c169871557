<script lang="ts">
  import { ChevronLeft, ChevronRight, X } from '@lucide/svelte';
  import type { ListedDrill } from '$core/drills/kinds';
  import type { Body, Lens } from '$core/kit/schema';
  import type { Camera } from '$core/setup/schema';
  import { getApp } from '$lib/state/app.svelte';
  import { swipe } from '$lib/fieldCard/swipe';
  import { keepScreenOn } from '$lib/fieldCard/wakeLock';
  import DrillFloor from './DrillFloor.svelte';
  import DrillPicture from './DrillPicture.svelte';
  import { exactFNumber } from '$core/optics/stops';
  import { laidOut } from './arrangedDrill';
  import { tick, ticksOf } from './results';

  interface Props {
    drill: ListedDrill;
    body: Body;
    lens: Lens;
    /** What shake is reckoned with. */
    stance: Camera['stance'];
  }
  let { drill, body, lens, stance }: Props = $props();
  /** One thing to do at a time, in the hand: what it is, what must come of it, done. Nothing scrolls. */
  const app = getApp();
  const { unit, habits } = $derived(app.settings.now);
  const { kit, discMm, stops, arranged } = $derived(laidOut(drill.id, body, lens, habits));
  const tasks = $derived(arranged ? (drill.frames?.tasks(arranged, unit) ?? []) : []);
  const ticked = $derived(ticksOf(app, drill.id));
  const left = $derived(tasks.filter(({ id }) => !ticked.includes(id)).length);
  /** The first that is still to do, until one goes elsewhere. */
  let chosen = $state<number | null>(null);
  const index = $derived(
    chosen ??
      Math.max(
        0,
        tasks.findIndex(({ id }) => !ticked.includes(id))
      )
  );
  const task = $derived(tasks[index]);
  const isDone = $derived(task !== undefined && ticked.includes(task.id));
  const step = $derived(arranged?.steps.find(({ id }) => id === task?.step));
  let room = $state({ width: 0, height: 0 });
  /** Its picture's height over its width. */
  const pictureShare = 0.8;

  const go = (by: 1 | -1) => (chosen = Math.max(0, Math.min(tasks.length - 1, index + by)));
  function done() {
    if (!task) return;
    const on = !isDone;
    const at = index;
    tick(app, drill.id, task.id, on);
    chosen = on ? Math.min(tasks.length - 1, at + 1) : at;
  }
  $effect(() => keepScreenOn());
</script>

<main
  class="mx-auto flex h-dvh w-full max-w-md touch-manipulation flex-col bg-surface px-4 text-ink select-none"
  {@attach swipe(go)}
  data-testid="pocket-drill"
>
  <header class="flex h-11 shrink-0 items-center gap-2">
    <p class="condensed min-w-0 truncate text-[17px] font-semibold">{drill.title}</p>
    <span class="ml-auto tabular-nums">{lens.name}</span>
    <a class="-mr-3 grid size-11 shrink-0 place-items-center" href="/drills/{drill.id}" aria-label="Leave the steps"
      ><X size={22} aria-hidden="true" /></a
    >
  </header>
  {#if task && arranged}
    <h1 class="condensed shrink-0 text-[30px] leading-[1.12] font-bold text-pretty" data-testid="drill-task">
      {task.text}
    </h1>
    <div
      class="-mx-4 mt-3 flex min-h-20 flex-1 flex-col overflow-hidden bg-raised"
      bind:clientWidth={room.width}
      bind:clientHeight={room.height}
    >
      {#if step && room.height > 0}
        <div class="grid shrink-0 place-items-center bg-surround">
          <DrillPicture
            {drill}
            {arranged}
            kit={{ body, lens, focalLengthMm: kit.focalLengthMm, habits, stance, stabiliserStops: stops }}
            {step}
            name={drill.frames?.stepName(step, unit) ?? ''}
            room={{ width: room.width, height: Math.min(room.height, pictureShare * room.width) }}
          />
        </div>
      {/if}
      <DrillFloor
        {arranged}
        f={kit.focalLengthMm}
        fNumber={exactFNumber(kit.widestFNumber)}
        {discMm}
        widthMm={Math.max(body.sensor.widthMm, body.sensor.heightMm)}
        {unit}
        focusOn={step?.focusOn ?? 0}
      />
    </div>
    <p class="shrink-0 py-1.5 text-[17px] leading-snug" role="status">
      {#if left === 0}
        All done. <a class="underline" href="/drills/{drill.id}">Import the frames</a>
      {:else}
        {index + 1} of {tasks.length}, {left} still to do
      {/if}
    </p>
    <nav aria-label="Steps" class="flex shrink-0 gap-2 pt-1 pb-3">
      <button
        type="button"
        class="grid h-14 w-16 place-items-center border-2 border-ink disabled:invisible"
        disabled={index === 0}
        aria-label="The step before"
        onclick={() => go(-1)}><ChevronLeft size={24} aria-hidden="true" /></button
      >
      <button
        type="button"
        class="condensed h-14 min-w-0 flex-1 border-2 text-[19px] font-bold {isDone
          ? 'border-ink bg-surface text-ink'
          : 'border-pencil bg-pencil text-surface'}"
        aria-pressed={isDone}
        onclick={done}
        >Done{#if isDone}<span class="block text-[13px] leading-none font-normal">press to undo</span>{/if}</button
      >
      <button
        type="button"
        class="grid h-14 w-16 place-items-center border-2 border-ink disabled:invisible"
        disabled={index >= tasks.length - 1}
        aria-label="The step after"
        onclick={() => go(1)}><ChevronRight size={24} aria-hidden="true" /></button
      >
    </nav>
  {:else}
    <p class="mt-4 text-[17px]">
      This drill has no steps for a phone. <a class="underline" href="/drills/{drill.id}">Open it</a>
    </p>
  {/if}
</main>
