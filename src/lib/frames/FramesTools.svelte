<script lang="ts">
  import { Button, Checkbox, Select } from 'flowbite-svelte';
  import type { FrameJudged } from '$core/frames/eyes';
  import { areComplete } from '$core/record/recorded';
  import Choice from '$lib/controls/Choice.svelte';
  import OnceOpen from '$lib/controls/OnceOpen.svelte';
  import { getApp } from '$lib/state/app.svelte';
  import { noSetup } from './judging';

  interface Props {
    /** The frames of the setup that is looked at. */
    judged: readonly FrameJudged[];
    setupId: string | null;
    order: 'best' | 'time';
    shown: 'all' | 'open' | 'kept';
    onsetup: (id: string) => unknown;
  }
  /** Of which setup the frames are, in which order and which of them are shown. */
  let { judged, setupId, order = $bindable(), shown = $bindable(), onsetup }: Props = $props();
  const app = getApp();
  let correcting = $state(false);
  /** On a narrow screen what is seldom needed waits. */
  let more = $state(false);
  const groups = $derived([...app.frames.bySetup.entries()]);
  const label = (id: string | null) => (id === null ? 'No setup' : (app.open.row(id)?.setup.name ?? ''));
  /** Whether all that were taken are here: as somebody said, else as the numbers of the files tell. */
  const complete = $derived.by(() => {
    const frames = judged.map(({ frame }) => frame);
    const told = areComplete(frames);
    return frames.every((frame) => frame.complete ?? told);
  });
</script>

<div class="mb-2 flex flex-wrap items-end gap-x-5 gap-y-2">
  <label class="label block w-64"
    >Setup
    <Select
      placeholder=""
      class="mt-0.5"
      value={setupId ?? noSetup}
      onchange={(event) => onsetup(event.currentTarget.value)}
    >
      {#each groups as [id, list] (id ?? noSetup)}
        <option value={id ?? noSetup}>{label(id)} ({list.length})</option>
      {/each}
    </Select>
  </label>
  <Choice
    legend="Order"
    value={order}
    options={[
      { value: 'best', name: 'best first' },
      { value: 'time', name: 'by time' }
    ]}
    onchange={(value) => (order = value)}
  />
  <Choice
    legend="Show"
    value={shown}
    options={[
      { value: 'all', name: 'all' },
      { value: 'open', name: 'undecided' },
      { value: 'kept', name: 'kept' }
    ]}
    onchange={(value) => (shown = value)}
  />
  <button type="button" class="h-8 underline sm:hidden" aria-expanded={more} onclick={() => (more = !more)}
    >{more ? 'Less' : 'More'}</button
  >
  <label class="label block w-56 {more ? '' : 'max-sm:hidden'}"
    >Wrong setup?
    <Select
      placeholder=""
      class="mt-0.5"
      value=""
      onchange={(event) => {
        const to = event.currentTarget.value;
        if (to === '') return;
        void app.frames.moveTo(
          judged.map(({ frame }) => frame.id),
          to === noSetup ? null : to
        );
        onsetup(to);
      }}
    >
      <option value="">Move these {judged.length} to …</option>
      {#if setupId !== null}<option value={noSetup}>No setup</option>{/if}
      {#each app.open.rows.filter(({ id }) => id !== setupId) as other (other.id)}
        <option value={other.id}>{other.setup.name}</option>
      {/each}
    </Select>
  </label>
  <Button class={more ? '' : 'max-sm:hidden'} color="alternative" onclick={() => (correcting = true)}>Clocks</Button>
  {#if setupId !== null && judged.length > 0}
    <div class="flex h-8 items-center {more ? '' : 'max-sm:hidden'}">
      <Checkbox
        checked={complete}
        onchange={(event) =>
          app.frames.sayComplete(
            judged.map(({ frame }) => frame.id),
            event.currentTarget.checked
          )}>These are all the frames I shot</Checkbox
      >
    </div>
  {/if}
</div>
<OnceOpen open={correcting}>
  {#await import('./Clocks.svelte') then { default: Clocks }}<Clocks bind:open={correcting} />{/await}
</OnceOpen>
