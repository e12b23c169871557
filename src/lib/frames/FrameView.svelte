<script lang="ts">
  import { Button } from 'flowbite-svelte';
  import { tinykeys } from 'tinykeys';
  import { onMount } from 'svelte';
  import type { CauseFound } from '$core/frames/causes';
  import { contradicts, distanceFromEyes } from '$core/frames/distance';
  import { reasonFor, type FrameJudged } from '$core/frames/eyes';
  import { beforeInBurst } from '$core/frames/match';
  import { pointable } from '$core/frames/pointed';
  import { readFrame } from '$core/frames/reading';
  import {
    causeWords,
    contradictionWords,
    distanceWords,
    nextTime,
    planeInterval,
    planeTitle,
    shakeTitle,
    sharpestWords,
    steadier,
    tooDeepWords
  } from '$core/words/frame';
  import { frameNumber, frameRemark } from '$core/words/frames';
  import Fold from '$lib/controls/Fold.svelte';
  import HowComputed from '$lib/controls/HowComputed.svelte';
  import { boundKey } from '$core/frames/keys';
  import { screenKey } from '$lib/shell/keys';
  import { getApp } from '$lib/state/app.svelte';
  import type { Judging } from './judging';
  import PictureOfFrame from './PictureOfFrame.svelte';
  import PlaneFloor from './PlaneFloor.svelte';

  interface Props {
    judged: FrameJudged;
    now: Judging;
    nameOf: (personId: string) => string;
    /** The frames of the table, in its order. */
    order: readonly string[];
    onopen: (id: string | null) => unknown;
  }
  /** One frame: the picture in the grey, everybody's eyes, and where its plane fell. */
  let { judged, now, nameOf, order, onopen }: Props = $props();
  const app = getApp();
  const frame = $derived(judged.frame);
  const { row, expected } = $derived(now);
  const planned = $derived(row ? app.open.planned(row.setup) : null);
  const plan = $derived(planned?.plan.kind === 'plan' ? planned.plan : null);
  const target = $derived.by(() => {
    const id = plan?.stops[plan.selected]?.target.subjectId;
    return plan?.subjects.find((subject) => subject.id === id)?.name ?? null;
  });
  /** The frame before it in the same burst. */
  const before = $derived(
    beforeInBurst(
      frame,
      now.judged.map((one) => one.frame)
    )
  );
  const reading = $derived(
    row && plan && planned?.body
      ? readFrame(judged, row.setup, plan, planned.body, expected, now.allowed(frame), before)
      : null
  );
  const stood = $derived(
    row && plan && planned?.body ? distanceFromEyes(frame, row.setup, planned.body, expected, plan) : null
  );
  const subjects = $derived(
    new Map([...(plan?.subjects ?? []), ...(plan?.backgrounds ?? [])].map(({ id, name }) => [id, name]))
  );
  const said = $derived({
    unit: app.settings.now.unit,
    target,
    nameOf: (id: string) => subjects.get(id) ?? nameOf(id)
  });
  const likeliest = $derived(reading?.causes[0]);
  const others = $derived(reading?.causes.slice(1, 4) ?? []);
  const next = $derived(reading ? nextTime(reading, said) : null);
  const at = $derived(order.indexOf(frame.id));
  const step = (by: number) => {
    const id = order[at + by];
    if (id !== undefined) onopen(id);
  };
  const choose = (choice: 'keep' | 'maybe' | 'reject') =>
    app.frames.choose([frame.id], choice, choice === 'keep' ? null : reasonFor(judged));
  const keys = app.settings.now.frameKeys;
  onMount(() =>
    tinykeys(window, {
      ArrowDown: screenKey(() => step(1)),
      ArrowUp: screenKey(() => step(-1)),
      ArrowRight: screenKey(() => step(1)),
      ArrowLeft: screenKey(() => step(-1)),
      Enter: screenKey(() => choose('keep')),
      [boundKey(keys.keep)]: screenKey(() => choose('keep')),
      [boundKey(keys.maybe)]: screenKey(() => choose('maybe')),
      [boundKey(keys.reject)]: screenKey(() => choose('reject')),
      Escape: screenKey(() => onopen(null))
    })
  );
</script>

{#snippet cause(found: CauseFound)}
  {@const words = causeWords(found, said)}
  <div class="flex gap-3">
    <span class="mt-1.5 h-2 w-[70px] shrink-0 bg-line" aria-label="{Math.round(found.likely * 100)}%" role="img"
      ><span class="block h-full bg-ink" style:width="{Math.round(found.likely * 100)}%"></span></span
    >
    <span><b class="font-semibold">{words.title}</b><br /><span class="text-soft">{words.detail}</span></span>
  </div>
{/snippet}

<main class="grid min-h-0 flex-1 grid-cols-1 overflow-auto lg:grid-cols-[minmax(0,1.35fr)_minmax(0,1fr)]">
  <PictureOfFrame
    {judged}
    {row}
    {nameOf}
    pointable={row && plan && planned?.body ? pointable(frame, row.setup, plan, planned.body, expected) : []}
    place="frame {at + 1} of {order.length}"
    marked={reading?.sharpest != null && !judged.shake}
  />
  <section class="min-w-0 px-6 py-5" aria-label="Where focus landed">
    <div class="mb-4 flex flex-wrap gap-2">
      <Button color="alternative" onclick={() => onopen(null)}>All frames</Button>
      <Button
        color={frame.choice === 'keep' ? 'primary' : 'alternative'}
        aria-pressed={frame.choice === 'keep'}
        onclick={() => choose('keep')}>Keep</Button
      >
      <Button color="alternative" aria-pressed={frame.choice === 'maybe'} onclick={() => choose('maybe')}>Maybe</Button>
      <Button color="alternative" aria-pressed={frame.choice === 'reject'} onclick={() => choose('reject')}
        >Reject</Button
      >
    </div>
    <p class="text-soft">Frame {frameNumber(frame)}: {frameRemark(judged, nameOf)}</p>
    {#if judged.shake}
      <h1 class="condensed mt-1 text-[25px] leading-tight font-bold text-pretty" data-testid="plane-title">
        {shakeTitle(judged.shake)}
      </h1>
      <p class="mt-1 text-pretty">It blurs everyone alike, so where focus landed doesn’t show.</p>
      <p class="mt-3 border-l-3 border-pencil bg-raised p-3 text-pretty">{steadier(frame, judged.shake)}</p>
    {:else if reading && row && planned?.body && plan}
      <h1 class="condensed mt-1 text-[25px] leading-tight font-bold text-pretty" data-testid="plane-title">
        {planeTitle(reading, said)}
      </h1>
      <p class="mt-1 text-pretty">{planeInterval(reading, said)}<HowComputed of="plane" class="ml-1" /></p>
      <div class="mt-4">
        <PlaneFloor
          {reading}
          setup={row.setup}
          body={planned.body}
          {expected}
          {judged}
          pupilMagnification={plan.pupilMagnification}
        />
      </div>
      {#if likeliest}
        <div class="mt-4" data-testid="likeliest">{@render cause(likeliest)}</div>
        {#if next}<p class="mt-3 border-l-3 border-pencil bg-raised p-3 text-pretty">{next}</p>{/if}
      {/if}
      {#if others.length > 0 || reading.sharpest || reading.tooDeep || stood}
        <div class="mt-4">
          <Fold title="More about this frame">
            {#if others.length > 0}
              <h2 class="mt-1 font-semibold">Less likely causes</h2>
              <ul data-testid="causes">
                {#each others as found, index (index)}<li class="border-b border-line py-2">
                    {@render cause(found)}
                  </li>{/each}
              </ul>
            {/if}
            {#if reading.sharpest}
              <p class="mt-2 text-pretty" data-testid="sharpest">{sharpestWords(reading, said)}</p>
            {/if}
            {#if reading.tooDeep}<p class="mt-2 text-pretty" data-testid="too-deep">{tooDeepWords(frame)}</p>{/if}
            {#if stood}
              <p class="mt-2 text-pretty text-soft" data-testid="stood">
                {distanceWords(stood, plan.distanceMm, app.settings.now.unit)}
              </p>
            {/if}
          </Fold>
        </div>
      {/if}
    {:else}
      <h1 class="condensed mt-1 text-[25px] leading-tight font-bold">Can’t tell where focus landed.</h1>
      <p class="mt-1 text-pretty">
        {stood && plan && contradicts(stood, plan.distanceMm)
          ? contradictionWords(stood, plan.distanceMm, frame, app.settings.now.unit)
          : row
            ? 'No face of the plan could be measured in this frame, or it was taken with another lens.'
            : 'Choose its setup: the plan then knows where everyone stood.'}
      </p>
    {/if}
  </section>
</main>
