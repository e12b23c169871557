<script lang="ts">
  import { Button } from 'flowbite-svelte';
  import { tinykeys } from 'tinykeys';
  import { onMount } from 'svelte';
  import { reasonFor, type FaceJudged, type FrameJudged } from '$core/frames/eyes';
  import type { CullingChoice as Chosen } from '$core/frames/schema';
  import { verdictWords } from '$core/words/call';
  import { differenceWords } from '$core/words/compare';
  import { frameNumber, frameRemark, settingsLine } from '$core/words/frames';
  import Choice from '$lib/controls/Choice.svelte';
  import { boundKey, shownKey } from '$core/frames/keys';
  import { screenKey } from '$lib/shell/keys';
  import { getApp } from '$lib/state/app.svelte';
  import type { Judging } from './judging';
  import KeyHints from './KeyHints.svelte';
  import LockedEyes from './LockedEyes.svelte';

  interface Props {
    /** Two to six. */
    frames: readonly FrameJudged[];
    now: Judging;
    nameOf: (personId: string) => string;
    personId: string | null;
    onperson: (personId: string) => unknown;
    onclose: () => unknown;
    ondrop: (id: string) => unknown;
  }
  /** The same person's eyes in several frames, brought nearer and moved together; two of them in one place to flip between. */
  let { frames, now, nameOf, personId, onperson, onclose, ondrop }: Props = $props();
  const app = getApp();
  const people = $derived(
    now.columns.length > 0
      ? now.columns.map((column) => column.personId)
      : [...new Set(frames.flatMap(({ faces }) => faces.flatMap((face) => face.personId ?? [])))]
  );
  const shown = $derived(personId !== null && people.includes(personId) ? personId : (people[0] ?? null));
  const none = { k: 1, x: 0, y: 0 };
  let pan = $state.raw(none);
  let flipping = $state(false);
  let at = $state(0);
  const index = $derived(Math.min(at, frames.length - 1));
  let current = $state(0);
  const first = $derived(frames[0]);
  /** "sharp, 1.2 px": discs under half a pixel are all alike. */
  const discWords = ({ judged, discPx }: FaceJudged) =>
    [
      judged === 'unknown' ? 'can’t tell' : verdictWords[judged],
      discPx === null ? null : discPx < 0.5 ? 'under 0.5 px' : `${discPx.toFixed(1)} px`
    ]
      .filter((part) => part !== null)
      .join(', ');
  const faceOf = (one: FrameJudged | undefined) => one?.faces.find((face) => face.personId === shown);

  function flip() {
    if (flipping) at = (index + 1) % frames.length;
    else {
      flipping = true;
      at = 0;
    }
  }
  /** All are as large: one of them is asked, the others follow. */
  let shownEyes = $state<(ReturnType<typeof LockedEyes> | undefined)[]>([]);
  const nearer = (factor: number) => shownEyes.find((eyes) => eyes)?.by(factor);
  function choose(one: FrameJudged | undefined, choice: Chosen) {
    if (one) app.frames.choose([one.frame.id], choice, choice === 'keep' ? null : reasonFor(one));
  }
  const chosen = $derived(flipping ? frames[index] : frames[Math.min(current, frames.length - 1)]);
  function person(by: number) {
    const next = people[(people.indexOf(shown ?? '') + by + people.length) % people.length];
    if (next !== undefined) onperson(next);
  }
  const keys = app.settings.now.frameKeys;
  onMount(() =>
    tinykeys(window, {
      [boundKey(keys.flip)]: screenKey(flip),
      ArrowLeft: screenKey(() =>
        flipping ? (at = (index + frames.length - 1) % frames.length) : (current = Math.max(0, current - 1))
      ),
      ArrowRight: screenKey(() => (flipping ? flip() : (current = Math.min(frames.length - 1, current + 1)))),
      ArrowUp: screenKey(() => person(-1)),
      ArrowDown: screenKey(() => person(1)),
      '+': screenKey(() => nearer(1.5)),
      '-': screenKey(() => nearer(1 / 1.5)),
      '0': screenKey(() => (pan = none)),
      Enter: screenKey(() => choose(chosen, 'keep')),
      [boundKey(keys.keep)]: screenKey(() => choose(chosen, 'keep')),
      [boundKey(keys.maybe)]: screenKey(() => choose(chosen, 'maybe')),
      [boundKey(keys.reject)]: screenKey(() => choose(chosen, 'reject')),
      Escape: screenKey(() => (flipping ? (flipping = false) : onclose()))
    })
  );
  const columns = $derived(flipping ? 1 : frames.length <= 3 ? frames.length : Math.ceil(frames.length / 2));
</script>

<main class="flex min-h-0 flex-1 flex-col overflow-auto">
  <div class="flex flex-wrap items-end gap-x-5 gap-y-2 px-4 pt-4 pb-3">
    <h1
      class="condensed min-w-0 flex-1 basis-72 text-[26px] leading-tight font-bold text-pretty"
      data-testid="side-title"
    >
      {shown === null ? 'Side by side' : `${nameOf(shown)}’s eyes in ${frames.length} frames`}
    </h1>
    <Choice
      legend="Person"
      value={shown ?? ''}
      options={people.map((id) => ({ value: id, name: nameOf(id) }))}
      onchange={onperson}
      wrap
    />
    <Button
      color={flipping ? 'primary' : 'alternative'}
      aria-pressed={flipping}
      onclick={() => (flipping ? (flipping = false) : flip())}>Flip</Button
    >
    <Button color="alternative" disabled={pan === none} onclick={() => (pan = none)}>Reset zoom</Button>
    <Button color="alternative" onclick={onclose}>All frames</Button>
  </div>
  <div
    class="grid flex-1 gap-px bg-surround"
    style:grid-template-columns="repeat({columns}, minmax(0, 1fr))"
    data-testid="side-by-side"
  >
    {#each frames as one, i (one.frame.id)}
      {@const face = faceOf(one)}
      {#if !flipping || i === index}
        {@const differs =
          i === 0 || !first
            ? ''
            : differenceWords(one.frame, first.frame, [face?.discPx ?? null, faceOf(first)?.discPx ?? null])}
        <section
          class="relative flex min-h-64 flex-col bg-surface {!flipping && i === current
            ? 'after:pointer-events-none after:absolute after:inset-0 after:border-2 after:border-ink'
            : ''}"
          aria-label="Frame {frameNumber(one.frame)}"
          onpointerdown={() => (current = i)}
        >
          <LockedEyes
            bind:this={shownEyes[i]}
            frameId={one.frame.id}
            faceId={face?.faceId}
            name={shown === null ? 'nobody' : nameOf(shown)}
            {pan}
            onpan={(next) => (pan = next)}
          />
          <div class="px-3 py-2">
            <p class="flex flex-wrap items-baseline gap-x-3">
              <b class="text-[17px]">{frameNumber(one.frame)}</b>
              <span class="font-semibold"
                >{face === undefined
                  ? 'not found'
                  : face.closed
                    ? 'closed'
                    : face.ratio === null
                      ? 'can’t tell'
                      : discWords(face)}</span
              >
              {#if one.frame.choice}<span class="text-pencil"
                  >{{ keep: 'kept', maybe: 'maybe', reject: 'rejected' }[one.frame.choice]}</span
                >{/if}
            </p>
            <p class="condensed text-soft">{settingsLine(one.frame)}</p>
            <p class="condensed min-h-5">
              {differs !== '' && first ? `${differs} than ${frameNumber(first.frame)}` : ''}
            </p>
            <p class="min-h-10 text-pretty text-soft">{frameRemark(one, nameOf)}</p>
            <div class="mt-2 flex flex-wrap gap-2">
              <Button
                size="xs"
                color={one.frame.choice === 'keep' ? 'primary' : 'alternative'}
                aria-pressed={one.frame.choice === 'keep'}
                onclick={() => choose(one, 'keep')}>Keep</Button
              >
              <Button
                size="xs"
                color="alternative"
                aria-pressed={one.frame.choice === 'reject'}
                onclick={() => choose(one, 'reject')}>Reject</Button
              >
              {#if frames.length > 2}<Button size="xs" color="alternative" onclick={() => ondrop(one.frame.id)}
                  >Leave out</Button
                >{/if}
            </div>
          </div>
        </section>
      {/if}
    {/each}
  </div>
  <div class="condensed border-t border-line px-4 py-1 text-[13px] text-soft">
    <KeyHints
      of="beside"
      keys={[
        'wheel or + − zoom',
        'drag to move',
        '0 resets',
        'F flips',
        '↑ ↓ person',
        '← → frame',
        'Enter keeps',
        `${shownKey(keys.reject)} rejects`,
        'Esc all frames'
      ]}
    />
  </div>
</main>
