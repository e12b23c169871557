<script lang="ts">
  import { Checkbox } from 'flowbite-svelte';
  import type { FrameJudged } from '$core/frames/eyes';
  import { clockText, frameNumber, frameRemark, reasonWords, settingsLine } from '$core/words/frames';
  import { getApp } from '$lib/state/app.svelte';
  import EyesCell from './EyesCell.svelte';
  import type { Column } from './judging';
  import { framePicture } from './picture.svelte';

  interface Props {
    judged: FrameJudged;
    columns: readonly Column[];
    current: boolean;
    /** Whether it is to be shown beside others. */
    beside: boolean;
    /** Why it is the best of its burst; empty where it is not. */
    best: string;
    onbeside: () => unknown;
    nameOf: (personId: string) => string;
    onpick: () => unknown;
    onopen: () => unknown;
  }
  /** One frame: its picture, ringed if it is kept, everybody's eyes, and what it lacks. */
  let { judged, columns, current, beside, best, nameOf, onbeside, onpick, onopen }: Props = $props();
  const app = getApp();
  const frame = $derived(judged.frame);
  const picture = framePicture(() => frame.id);
  const words = { keep: 'kept', maybe: 'maybe', reject: 'rejected' } as const;
  /** Without people to expect, everybody who was found. */
  const cells = $derived(
    columns.length > 0
      ? columns.map(({ personId, name }) => ({ name, face: judged.faces.find((face) => face.personId === personId) }))
      : judged.faces.slice(0, 8).map((face, index) => ({ name: `Face ${index + 1}`, face }))
  );
</script>

<div
  id="frame-{frame.id}"
  role="row"
  aria-selected={current}
  tabindex="-1"
  class="relative flex w-max min-w-full items-start gap-x-1 max-sm:min-h-[9.5rem] border-b border-line py-2.5 pr-4 {current
    ? 'bg-raised'
    : ''}"
  data-testid="frame-row"
  onpointerdown={onpick}
>
  <div role="gridcell" class="w-[8.1rem] shrink-0 pl-4">
    <button
      type="button"
      class="relative block h-[68px] w-[102px] bg-surround"
      onclick={onopen}
      aria-label="Open {frame.file.name}"
    >
      {#if picture.thumbnail !== ''}<img
          src={picture.thumbnail}
          alt=""
          class="h-full w-full object-contain {frame.choice === 'reject' ? 'opacity-60' : ''}"
        />{/if}
      <svg viewBox="0 0 102 68" class="pointer-events-none absolute -inset-1.5 overflow-visible" aria-hidden="true">
        {#if frame.choice === 'keep'}
          <path
            d="M 8 10 C 30 -3, 78 -3, 94 9 C 108 24, 105 52, 88 62 C 66 74, 26 72, 9 60 C -4 46, -3 20, 12 8"
            fill="none"
            stroke="var(--pencil)"
            stroke-width="2.6"
            stroke-linecap="round"
          />
        {:else if frame.choice === 'reject'}
          <path d="M 74 -2 L 104 22" stroke="var(--pencil)" stroke-width="2.6" stroke-linecap="round" />
        {:else if frame.choice === 'maybe'}
          <path d="M 4 66 L 40 66" stroke="var(--pencil)" stroke-width="2.6" stroke-linecap="round" />
        {/if}
      </svg>
    </button>
  </div>
  <div
    role="rowheader"
    class="condensed w-[8.9rem] shrink-0 text-[13px] leading-5 max-sm:absolute max-sm:top-20 max-sm:left-4 max-sm:w-[7rem]"
  >
    <p>
      <b class="text-[14px]">{frameNumber(frame)}</b>
      <span class="text-soft">{clockText(app.frames.timeOf(frame))}</span>
    </p>
    <p>{settingsLine(frame)}</p>
    {#if frame.preview}<p class="text-soft">preview, {frame.widthPx} px</p>{/if}
    {#if frame.enlarged}<p class="text-soft">enlarged file: less sharp than its pixels</p>{/if}
    {#if frame.choice}<p class="text-soft">
        {words[frame.choice]}{frame.reason ? `: ${reasonWords[frame.reason]}` : ''}
      </p>{/if}
  </div>
  {#each cells as { name, face }, index (index)}
    <div role="gridcell"><EyesCell {face} {name} picture={picture.eyesOf(face?.faceId)} /></div>
  {/each}
  <div role="gridcell" class="ml-3 w-56 shrink-0 text-[14px] leading-5 text-pretty">
    {frameRemark(judged, nameOf)}
    {#if best !== ''}<span class="block text-[13px] text-soft">{best}</span>{/if}
    <div class="w-fit"><Checkbox checked={beside} onchange={onbeside}>compare</Checkbox></div>
  </div>
</div>
