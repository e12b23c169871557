<script lang="ts">
  import { Button, Select } from 'flowbite-svelte';
  import { tinykeys } from 'tinykeys';
  import { onMount } from 'svelte';
  import { distanceFromEyes } from '$core/frames/distance';
  import { eyesPx, reasonFor, type FrameJudged } from '$core/frames/eyes';
  import { readFrame } from '$core/frames/reading';
  import {
    causeWords,
    distanceWords,
    nextTime,
    planeInterval,
    planeTitle,
    shakeTitle,
    steadier
  } from '$core/words/frame';
  import { clockWords, frameNumber, frameRemark, settingsLine } from '$core/words/frames';
  import HowComputed from '$lib/controls/HowComputed.svelte';
  import { screenKey } from '$lib/shell/keys';
  import { getApp } from '$lib/state/app.svelte';
  import type { Judging } from './judging';
  import EyesCell from './EyesCell.svelte';
  import PlaneFloor from './PlaneFloor.svelte';
  import { framePicture } from './picture.svelte';

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
  const reading = $derived(
    row && plan && planned?.body ? readFrame(judged, row.setup, plan, planned.body, expected, now.allowed(frame)) : null
  );
  const stood = $derived(
    row && plan && planned?.body ? distanceFromEyes(frame, row.setup, planned.body, expected, plan) : null
  );
  const subjects = $derived(new Map(plan?.subjects.map(({ id, name }) => [id, name])));
  const said = $derived({
    unit: app.settings.now.unit,
    target,
    nameOf: (id: string) => subjects.get(id) ?? nameOf(id)
  });
  const next = $derived(reading ? nextTime(reading, said) : null);
  const picture = framePicture(() => frame.id);
  const at = $derived(order.indexOf(frame.id));
  const step = (by: number) => {
    const id = order[at + by];
    if (id !== undefined) onopen(id);
  };
  const choose = (choice: 'keep' | 'maybe' | 'reject') =>
    app.frames.choose([frame.id], choice, choice === 'keep' ? null : reasonFor(judged));
  onMount(() =>
    tinykeys(window, {
      ArrowDown: screenKey(() => step(1)),
      ArrowUp: screenKey(() => step(-1)),
      ArrowRight: screenKey(() => step(1)),
      ArrowLeft: screenKey(() => step(-1)),
      Enter: screenKey(() => choose('keep')),
      k: screenKey(() => choose('keep')),
      m: screenKey(() => choose('maybe')),
      x: screenKey(() => choose('reject')),
      Escape: screenKey(() => onopen(null))
    })
  );
  /** In the order of the setup's people; strangers last. */
  const faces = $derived.by(() => {
    const place = (personId: string | null) => {
      const at = (row?.setup.people ?? []).findIndex(({ id }) => id === personId);
      return at < 0 ? Infinity : at;
    };
    return [...judged.faces].sort((a, b) => place(a.personId) - place(b.personId) || 0);
  });
  const faceName = (personId: string | null, index: number) =>
    personId === null ? `Face ${index + 1}` : nameOf(personId);
</script>

<main class="grid min-h-0 flex-1 grid-cols-1 overflow-auto lg:grid-cols-[minmax(0,1.35fr)_minmax(0,1fr)]">
  <section class="min-w-0 bg-surround p-5 text-[#111]" aria-label="The picture">
    <div class="relative mx-auto w-full max-w-[52rem]" style:aspect-ratio="{frame.widthPx} / {frame.heightPx}">
      {#if picture.thumbnail !== ''}<img src={picture.thumbnail} alt={frame.file.name} class="h-full w-full" />{/if}
      <svg viewBox="0 0 {frame.widthPx} {frame.heightPx}" class="absolute inset-0 h-full w-full" aria-hidden="true">
        {#each frame.faces as face (face.id)}
          {@const apart = eyesPx(face)}
          <ellipse
            cx={(face.left.x + face.right.x) / 2}
            cy={(face.left.y + face.right.y) / 2 + apart * 0.3}
            rx={apart * 1.25}
            ry={apart * 1.6}
            fill="none"
            stroke="#fff"
            stroke-width={frame.widthPx / 600}
            stroke-dasharray={face.personId === null ? `${frame.widthPx / 120} ${frame.widthPx / 160}` : undefined}
          />
        {/each}
      </svg>
    </div>
    <ul class="mx-auto mt-4 flex max-w-[52rem] flex-wrap gap-x-1.5 gap-y-4">
      {#each faces as face, index (face.faceId)}
        <li class="w-[108px]">
          <EyesCell {face} name={faceName(face.personId, index)} picture={picture.eyesOf(face.faceId)} />
          <Select
            placeholder=""
            size="sm"
            class="mt-1 py-1"
            aria-label="Who face {index + 1} is"
            value={face.personId ?? ''}
            onchange={(event) => app.frames.name(frame.id, face.faceId, event.currentTarget.value || null)}
          >
            <option value="">nobody named</option>
            {#each row?.setup.people ?? [] as person (person.id)}<option value={person.id}>{person.name}</option>{/each}
          </Select>
        </li>
      {/each}
    </ul>
    <p class="condensed mx-auto mt-3 max-w-[52rem] text-[14px]">
      {[
        settingsLine(frame),
        frame.focalLengthMm === null ? '' : `${Math.round(frame.focalLengthMm)} mm`,
        clockWords(app.frames.timeOf(frame)),
        `frame ${at + 1} of ${order.length}`
      ]
        .filter((part) => part !== '')
        .join(' · ')}
    </p>
  </section>
  <section class="min-w-0 px-6 py-5" aria-label="Where its plane fell">
    <div class="mb-4 flex flex-wrap gap-2">
      <Button color="alternative" onclick={() => onopen(null)}>All frames</Button>
      <Button
        color={frame.choice === 'keep' ? 'primary' : 'alternative'}
        aria-pressed={frame.choice === 'keep'}
        onclick={() => choose('keep')}>Keep</Button
      >
      <Button color="alternative" aria-pressed={frame.choice === 'maybe'} onclick={() => choose('maybe')}
        >Perhaps</Button
      >
      <Button color="alternative" aria-pressed={frame.choice === 'reject'} onclick={() => choose('reject')}
        >Reject</Button
      >
    </div>
    <p class="text-soft">Frame {frameNumber(frame)}: {frameRemark(judged, nameOf)}</p>
    {#if judged.shake}
      <h1 class="condensed mt-1 text-[25px] leading-tight font-bold text-pretty" data-testid="plane-title">
        {shakeTitle(judged.shake)}
      </h1>
      <p class="mt-1 text-pretty">It blurs everybody alike; where the plane fell cannot be told from it.</p>
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
      {#if stood && plan}
        <p class="mt-2 text-pretty text-soft" data-testid="stood">
          {distanceWords(stood, plan.distanceMm, app.settings.now.unit)}
        </p>
      {/if}
      {#if reading.causes.length > 0}
        <h2 class="mt-5 border-t border-line pt-2 font-semibold">Why, most likely first</h2>
        <ul data-testid="causes">
          {#each reading.causes.slice(0, 4) as found, index (index)}
            {@const words = causeWords(found, said)}
            <li class="flex gap-3 border-t border-line py-2">
              <span
                class="mt-1.5 h-2 w-[70px] shrink-0 bg-line"
                aria-label="{Math.round(found.likely * 100)} %"
                role="img"
                ><span class="block h-full bg-ink" style:width="{Math.round(found.likely * 100)}%"></span></span
              >
              <span><b class="font-semibold">{words.title}</b><br /><span class="text-soft">{words.detail}</span></span>
            </li>
          {/each}
        </ul>
        {#if next}<p class="mt-3 border-l-3 border-pencil bg-raised p-3 text-pretty">{next}</p>{/if}
      {/if}
    {:else}
      <h1 class="condensed mt-1 text-[25px] leading-tight font-bold">Where the plane fell cannot be told.</h1>
      <p class="mt-1 text-pretty">
        {row
          ? 'No face of the plan could be measured in this frame, or it was taken with another lens.'
          : 'Say of which setup it is: then the plan knows where everybody stood.'}
      </p>
    {/if}
  </section>
</main>
