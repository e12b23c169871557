<script lang="ts">
  import { tinykeys } from 'tinykeys';
  import { onMount, tick } from 'svelte';
  import { Virtualizer, type VirtualizerHandle } from 'virtua/svelte';
  import { boundKey, shownKey, type FrameAction } from '$core/frames/keys';
  import { reasonFor, type FrameJudged } from '$core/frames/eyes';
  import HowComputed from '$lib/controls/HowComputed.svelte';
  import { screenKey } from '$lib/shell/keys';
  import { getApp } from '$lib/state/app.svelte';
  import FrameRow from './FrameRow.svelte';
  import KeyHints from './KeyHints.svelte';
  import { scrolledTo } from './picture.svelte';
  import type { Column } from './judging';

  interface Props {
    judged: readonly FrameJudged[];
    columns: readonly Column[];
    nameOf: (personId: string) => string;
    /** Which frames are to be shown beside each other. */
    beside: readonly string[];
    /** By the frame: why it is the best of its burst. */
    best: ReadonlyMap<string, string>;
    onbeside: (id: string) => unknown;
    oncompare: () => unknown;
    onperson: (personId: string) => unknown;
    onopen: (id: string) => unknown;
  }
  /** Who is sharp in which: a row a frame, a column a person. */
  let { judged, columns, beside, best, nameOf, onbeside, oncompare, onperson, onopen }: Props = $props();
  const app = getApp();
  let currentId = $state<string | null>(null);
  const index = $derived(
    Math.max(
      0,
      judged.findIndex(({ frame }) => frame.id === currentId)
    )
  );
  const current = $derived(judged[index]);
  let scroller = $state<HTMLElement>();
  let list = $state<VirtualizerHandle>();
  const shown = (action: FrameAction) => shownKey(keys[action]);
  const large = $derived(app.settings.now.eyesShown === 'large');
  const eyesPx = $derived(large ? 190 : 108);
  const rowPx = $derived(large ? 128 : 92);

  async function move(by: number) {
    const next = Math.min(judged.length - 1, Math.max(0, index + by));
    currentId = judged[next]?.frame.id ?? null;
    await tick();
    list?.scrollToIndex(next, { align: 'nearest' });
  }
  function choose(choice: 'keep' | 'maybe' | 'reject') {
    if (!current) return;
    currentId = current.frame.id;
    app.frames.choose([current.frame.id], choice, choice === 'keep' ? null : reasonFor(current));
  }
  const keys = app.settings.now.frameKeys;
  onMount(() =>
    tinykeys(window, {
      ArrowDown: screenKey(() => move(1)),
      ArrowUp: screenKey(() => move(-1)),
      Enter: screenKey(() => choose('keep')),
      [boundKey(keys.keep)]: screenKey(() => choose('keep')),
      [boundKey(keys.maybe)]: screenKey(() => choose('maybe')),
      [boundKey(keys.reject)]: screenKey(() => choose('reject')),
      [boundKey(keys.open)]: screenKey(() => current && onopen(current.frame.id)),
      [boundKey(keys.beside)]: screenKey(() => current && onbeside(current.frame.id)),
      [boundKey(keys.show)]: screenKey(() => oncompare()),
      Delete: screenKey(() => current && app.frames.remove([current.frame.id]))
    })
  );
</script>

<div
  class="min-h-0 flex-1 overflow-auto"
  bind:this={scroller}
  onscroll={(event) => scrolledTo(event.currentTarget.scrollTop)}
  style:--eyes="{eyesPx}px"
  role="grid"
  aria-label="Everyone’s eyes in each frame"
  aria-rowcount={judged.length}
  tabindex="0"
>
  <div
    role="row"
    class="sticky top-0 z-10 flex w-max min-w-full items-end gap-x-1 border-b border-line bg-surface py-1.5 pr-4 text-[13px]"
  >
    <span role="columnheader" class="w-[8.1rem] shrink-0"><span class="sr-only">Frame</span></span>
    <span role="columnheader" class="w-[8.9rem] shrink-0 max-sm:w-0"><span class="sr-only">Settings</span></span>
    {#each columns as { personId, name } (personId)}
      <span role="columnheader" class="w-[var(--eyes,108px)] shrink-0">
        <button
          type="button"
          class="condensed block max-w-full min-h-6 truncate text-[14px] font-semibold hover:underline"
          title="Through all frames"
          onclick={() => onperson(personId)}>{name}</button
        >
      </span>
    {/each}
  </div>
  <Virtualizer
    bind:this={list}
    data={judged}
    getKey={(item) => item.frame.id}
    scrollRef={scroller}
    startMargin={33}
    itemSize={rowPx}
    bufferSize={400}
  >
    {#snippet children(item: FrameJudged)}
      <FrameRow
        judged={item}
        {columns}
        {nameOf}
        current={item === current}
        beside={beside.includes(item.frame.id)}
        best={best.get(item.frame.id) ?? ''}
        onbeside={() => onbeside(item.frame.id)}
        onpick={() => (currentId = item.frame.id)}
        onopen={() => onopen(item.frame.id)}
      />
    {/snippet}
  </Virtualizer>
</div>
<div class="condensed hidden items-start gap-x-6 border-t border-line px-4 py-1 text-[13px] text-soft sm:flex">
  <span class="py-1">number: × acceptable blur<HowComputed of="eyes" class="ml-1" /></span>
  <KeyHints
    of="table"
    keys={[
      `Enter keeps`,
      `${shown('reject')} rejects`,
      `${shown('maybe')} maybe`,
      '↑ ↓ frames',
      `${shown('open')} opens`,
      `${shown('beside')} compare, ${shown('show')} side by side`
    ]}
  />
</div>
