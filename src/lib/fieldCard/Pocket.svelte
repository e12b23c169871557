<script lang="ts">
  import { ChevronLeft, ChevronRight, EllipsisVertical } from '@lucide/svelte';
  import { goto } from '$app/navigation';
  import { asShot } from '$core/asShot/asShot';
  import { focusPointWords } from '$core/setup/focusPoint';
  import { isAsPlanned } from '$core/setup/schedule';
  import { checksOf } from '$core/technique/checks';
  import { capital, noPlanWords, keeperRateWords, standing, subjectName, targetWords } from '$core/words/call';
  import { checkWords, tickedOf } from '$core/words/checks';
  import { formatLength } from '$core/units/length';
  import { formatIso, formatShutter } from '$core/words/light';
  import { stancePhrase } from '$core/words/stance';
  import { focusLine } from '$core/words/technique';
  import { getApp } from '$lib/state/app.svelte';
  import type { SetupRow } from '$lib/state/job/openJob.svelte';
  import Clock from './Clock.svelte';
  import NearestFix from './NearestFix.svelte';
  import FieldCardMore from './PocketMore.svelte';
  import FieldCardPicture from './PocketPicture.svelte';
  import FieldCardVerdict from './PocketVerdict.svelte';
  import MissingList from './MissingList.svelte';
  import PrintedCard from './PrintedCard.svelte';
  import Steppers from './Steppers.svelte';
  import { swipe } from './swipe';
  import { keepScreenOn } from './wakeLock';

  /** One setup in the hand: the call as things are now, and what turned out different. Nothing scrolls. */
  let { row }: { row: SetupRow } = $props();
  const app = getApp();
  /** Held for so long, Done asks how it is, ms. */
  const longPressMs = 500;
  const unit = $derived(app.settings.now.unit);
  const { setup } = $derived(row);
  const shot = $derived(asShot(setup, app.open.input(setup).kit));
  const planned = $derived(app.open.planned(shot));
  const plan = $derived(planned.plan.kind === 'plan' ? planned.plan : null);
  const entry = $derived(plan?.stops[plan.selected] ?? null);
  /** The plan's own picture, where only the light has changed. */
  const asDrawn = $derived.by(() => {
    const { plan: result, body, lens: on } = app.open.planned(setup);
    const alike = isAsPlanned({ ...setup.taken.different, lightStops: 0 });
    return alike && result.kind === 'plan' && body && on ? { setup, plan: result, body, lens: on } : null;
  });
  const index = $derived(app.day.items.findIndex((item) => item.id === row.id));
  const count = $derived(app.day.items.length);
  const dayEntry = $derived(app.day.table.entries[index]);
  const { taken } = $derived(setup);
  const isDone = $derived(taken.doneAt !== null);
  const stand = $derived.by(() => {
    if (!plan || !entry) return '';
    const { distanceMm, from } = standing(plan, entry);
    const whom = from === '' ? subjectName(plan, entry.target.subjectId ?? '') : from;
    return `Stand ${formatLength(distanceMm, unit)} from ${whom}.`;
  });
  const lens = $derived(plan ? `${Number(plan.focalLengthMm.toFixed(0))} mm` : '');
  const point = $derived.by(() => {
    const at = entry?.target.point;
    return at ? capital(focusPointWords(at)) : entry?.target.recomposed ? 'Focus, then turn' : 'By hand';
  });
  const way = $derived.by(() => {
    const { value, more } = focusLine(shot.camera);
    return [value, more, stancePhrase[shot.camera.stance]].filter(Boolean).join(', ');
  });
  const frames = $derived.by(() => {
    if (!plan || !entry) return '';
    const each = entry.frames.for95 ?? plan.framesToCombine;
    return each === null ? 'many frames' : `shoot ${each}`;
  });
  const checks = $derived(
    plan ? checksOf(app.open.input(shot), plan).map((check) => checkWords(plan, check, unit)) : []
  );
  const ticked = $derived(tickedOf(checks, setup.ticked));
  let open = $state<'more' | 'verdict' | 'missing' | null>(null);

  function go(by: 1 | -1) {
    const next = app.day.items[index + by];
    if (next) void goto(`/card/${next.id}`, { replaceState: true });
  }
  let pressed: ReturnType<typeof setTimeout> | undefined;
  let held = false;
  function down() {
    held = false;
    pressed = setTimeout(() => {
      held = true;
      open = 'verdict';
    }, longPressMs);
  }
  const up = () => clearTimeout(pressed);
  function done() {
    if (held) return;
    if (isDone) open = 'verdict';
    else app.day.tick(row.id, true);
  }
  $effect(() => keepScreenOn());
</script>

<main
  class="mx-auto flex h-dvh w-full max-w-md touch-manipulation flex-col bg-surface px-4 text-ink select-none landscape:max-h-dvh pocket-wide:grid pocket-wide:max-w-none pocket-wide:grid-cols-2 pocket-wide:gap-x-5 print:hidden"
  {@attach swipe(go)}
  data-testid="pocket"
>
  <div class="flex min-h-0 flex-1 flex-col">
    <header class="flex h-11 shrink-0 items-center gap-2">
      <p class="condensed min-w-0 truncate text-[17px] font-semibold">{index + 1} {setup.name}</p>
      <span class="ml-auto"></span>
      <Clock entry={dayEntry} done={isDone} />
      <button
        type="button"
        class="-mr-3 grid size-11 shrink-0 place-items-center"
        aria-label="More about this setup"
        onclick={() => (open = 'more')}><EllipsisVertical size={22} aria-hidden="true" /></button
      >
    </header>
    {#if plan && entry}
      <h1 class="shrink-0" data-testid="card-call">
        <span class="flex items-end justify-between gap-3">
          <span class="condensed-more block text-[100px] leading-[0.86] font-bold tracking-tight"
            >f/{entry.stop.label}</span
          >
          <span class="condensed pb-1 text-right text-[24px] leading-[1.12] font-bold">
            <span class="block">{formatShutter(entry.light.shutterS)}</span>
            <span class="block">{entry.light.iso === null ? '' : `ISO ${formatIso(entry.light.iso)}`}</span>
            <span class="block text-[18px] font-normal">{lens}</span>
          </span>
        </span>
        <span class="condensed mt-2 mb-2 line-clamp-3 text-[25px] leading-[1.1] font-bold text-pretty"
          >{capital(targetWords(plan, entry, unit))}. {stand}</span
        >
      </h1>
    {:else if planned.plan.kind === 'noPlan'}
      {@const words = noPlanWords(planned.plan.reason, unit)}
      <h1 class="condensed mt-4 text-[32px] leading-tight font-bold">{words.title}</h1>
      <p class="mt-2 mb-2 text-[18px]">{words.advice}</p>
    {/if}
    {#if plan && planned.body && planned.lens}
      <div class="-mx-4 flex min-h-20 flex-1 pocket-wide:hidden">
        <FieldCardPicture
          row={{ ...row, setup: shot }}
          {plan}
          body={planned.body}
          lens={planned.lens}
          planned={asDrawn}
        />
      </div>
      {#if plan.conflict}
        <div class="py-1.5"><NearestFix {setup} {shot} {plan} /></div>
      {/if}
      <button
        type="button"
        class="shrink-0 py-1.5 text-left text-[17px] leading-snug"
        aria-label="AF point, focusing method, keeper rate, checks: more"
        onclick={() => (open = 'more')}
      >
        <span class="flex justify-between gap-3">
          <span class="condensed min-w-0 truncate">{point}</span>
          <span class="shrink-0 font-bold">{keeperRateWords(plan)}</span>
        </span>
        <span class="flex justify-between gap-3">
          <span class="condensed min-w-0 truncate">{way}</span>
          <span class="shrink-0 font-bold">{frames}</span>
        </span>
        {#if checks.length > 0}
          <span class="condensed block text-[15px] underline decoration-1 underline-offset-3" data-testid="card-checks"
            >{ticked === checks.length ? 'All checks done' : `${checks.length - ticked} checks to do`}</span
          >
        {/if}
      </button>
    {/if}
  </div>
  <div class="flex min-h-0 shrink-0 flex-col pocket-wide:shrink">
    {#if plan && planned.body && planned.lens}
      <div class="mt-2 mb-2 hidden min-h-0 flex-1 pocket-wide:flex">
        <FieldCardPicture
          row={{ ...row, setup: shot }}
          {plan}
          body={planned.body}
          lens={planned.lens}
          planned={asDrawn}
        />
      </div>
    {/if}
    <Steppers {setup} {shot} onmissing={() => (open = 'missing')} />
    <nav aria-label="Setups" class="flex shrink-0 gap-2 pt-2 pb-3">
      {#if index > 0}
        <a
          href="/card/{app.day.items[index - 1]?.id}"
          data-sveltekit-replacestate
          class="grid h-14 w-16 place-items-center border-2 border-ink"
          aria-label="Before: {app.day.items[index - 1]?.name}"><ChevronLeft size={24} aria-hidden="true" /></a
        >
      {:else}<span class="w-16"></span>{/if}
      <button
        type="button"
        class="condensed h-14 min-w-0 flex-1 border-2 text-[19px] font-bold {isDone
          ? 'border-ink bg-surface text-ink'
          : 'border-pencil bg-pencil text-surface'}"
        onpointerdown={down}
        onpointerup={up}
        onpointercancel={up}
        onpointerleave={up}
        oncontextmenu={(event) => event.preventDefault()}
        onclick={done}
        >{#if isDone}Done{taken.verdict ? `, ${taken.verdict}` : ''}<span
            class="block text-[13px] leading-none font-normal"
            >{taken.verdict ? 'tap to change' : 'how did it go?'}</span
          >{:else}Done{/if}</button
      >
      {#if index < count - 1}
        <a
          href="/card/{app.day.items[index + 1]?.id}"
          data-sveltekit-replacestate
          class="grid h-14 w-16 place-items-center border-2 border-ink"
          aria-label="After: {app.day.items[index + 1]?.name}"><ChevronRight size={24} aria-hidden="true" /></a
        >
      {:else}<span class="w-16"></span>{/if}
    </nav>
  </div>
</main>

{#if open === 'more'}
  <FieldCardMore {row} {shot} {ticked} count={checks.length} onclose={() => (open = null)} />
{:else if open === 'verdict'}
  <FieldCardVerdict {row} onclose={() => (open = null)} />
{:else if open === 'missing'}
  <MissingList {setup} onclose={() => (open = null)} />
{/if}
<PrintedCard {row} />
