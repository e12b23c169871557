<script lang="ts">
  import { Button } from 'flowbite-svelte';
  import { onMount } from 'svelte';
  import type { KitGroup } from '$core/record/groups';
  import { readRecordFile } from '$core/formats/recordFile';
  import { honestyOf } from '$core/record/honesty';
  import type { Recorded } from '$core/record/schema';
  import {
    comparedAtMm,
    brierWords,
    differs,
    honestyTitle,
    honestyWords,
    recordTitle,
    swayFactorWords
  } from '$core/words/record';
  import { formatLength } from '$core/units/length';
  import Choice from '$lib/controls/Choice.svelte';
  import Failed from '$lib/controls/Failed.svelte';
  import HowComputed from '$lib/controls/HowComputed.svelte';
  import OnceOpen from '$lib/controls/OnceOpen.svelte';
  import { getApp } from '$lib/state/app.svelte';
  import { learnFrom, type Lessons } from '../../workers/clients/planner';
  import DrillFigures from './DrillFigures.svelte';
  import GroupRow from './GroupRow.svelte';
  import HonestyChart from './HonestyChart.svelte';
  import PersonsFigures from './PersonsFigures.svelte';
  import Rates from './Rates.svelte';
  import { dotsScale } from './dots';
  import UseFigures from './UseFigures.svelte';

  /** Where do my planes fall, and were the odds honest? */
  const app = getApp();
  let all = $state.raw<readonly Recorded[] | null>(null);
  let problem = $state('');
  let source = $state<'taken' | 'simulated' | null>(null);
  let age = $state<'alike' | 'fading'>('alike');
  let lessons = $state.raw<Lessons | null>(null);
  let saving = $state(false);
  const { unit } = $derived(app.settings.now);

  async function load() {
    problem = '';
    try {
      const { keepRecord } = await import('$lib/frames/recording');
      await keepRecord(app);
      all = await app.record.all();
    } catch (error) {
      problem = error instanceof Error ? error.message : String(error);
    }
  }
  onMount(() => void load());
  /** Something to look at: made up, and marked as simulated. */
  async function showDemo() {
    try {
      const answer = await fetch('/demo/record.json');
      const read = readRecordFile(await answer.text());
      if (!answer.ok || !read.ok) throw new Error('It could not be fetched.');
      await app.record.add(read.frames);
      await load();
    } catch (error) {
      app.messages.problem(`The made-up record: ${error instanceof Error ? error.message : String(error)}`);
    }
  }

  const taken = $derived((all ?? []).filter(({ simulated }) => !simulated));
  const simulated = $derived((all ?? []).filter((frame) => frame.simulated));
  /** One's own frames, unless there are only simulated ones. */
  const from = $derived(source ?? (taken.length > 0 || simulated.length === 0 ? 'taken' : 'simulated'));
  const frames = $derived(from === 'taken' ? taken : simulated);
  const halfLifeDays = 365;
  let asked = 0;
  $effect(() => {
    const [own, fading] = [frames, age === 'fading'];
    const mine = ++asked;
    if (own.length === 0) {
      lessons = null;
      return;
    }
    void learnFrom(own, { nowMs: app.now(), halfLifeDays: fading ? halfLifeDays : null })
      .then((found) => {
        if (mine === asked) lessons = found;
      })
      .catch((error: unknown) => (problem = String(error)));
  });

  const groups = $derived<readonly KitGroup[]>(lessons?.groups ?? []);
  const complete = $derived(frames.filter((frame) => frame.complete).length);
  const honesty = $derived(honestyOf(frames));
  const scale = $derived(dotsScale(groups));
  /** As assumed needs no line. */
  const sways = $derived((lessons?.sways ?? []).filter(({ factor }) => differs(factor)));
  const subtitle = $derived(
    [
      `${frames.length === 1 ? 'one frame' : `${frames.length} frames`}${from === 'simulated' ? ', simulated' : ''}`,
      complete === frames.length ? null : `${complete} of them with all others of their setup`,
      groups.length > 0 ? `each dot is where focus landed, scaled to ${formatLength(comparedAtMm, unit)}` : null
    ]
      .filter((part) => part !== null)
      .join(' · ')
  );
</script>

<main class="mx-auto max-w-[1280px] px-4 py-4">
  {#if problem !== ''}
    <Failed what="The record could not be read." why={problem} onretry={load} />
  {:else if all === null}
    <p class="text-soft" role="status">Reading the record …</p>
  {:else}
    <div class="flex flex-wrap items-start gap-x-6 gap-y-2">
      <div class="min-w-0 flex-1 basis-96">
        <h1 class="condensed text-[26px] leading-tight font-bold text-pretty" data-testid="record-title">
          {recordTitle(groups, unit)}
        </h1>
        <p class="max-w-2xl text-pretty text-soft">
          {#if frames.length === 0}
            Fills up as you measure frames: where focus landed, who was sharp, what you kept. Focalis learns your
            lenses’ focus error and your sway. Numbers only, only in this browser.
          {:else}{subtitle}<HowComputed of="planes" class="ml-1" />{/if}
        </p>
        {#if frames.length === 0}
          <div class="mt-3"><Button color="alternative" onclick={showDemo}>Show a made-up record</Button></div>
        {/if}
      </div>
      <div class="flex flex-wrap items-end gap-x-4 gap-y-2">
        {#if taken.length > 0 && simulated.length > 0}
          <Choice
            legend="Frames"
            value={from}
            options={[
              { value: 'taken', name: 'taken' },
              { value: 'simulated', name: 'simulated' }
            ]}
            onchange={(value) => (source = value)}
          />
        {/if}
        {#if frames.length > 0}
          <Choice
            legend="Old frames"
            value={age}
            options={[
              { value: 'alike', name: 'count alike' },
              { value: 'fading', name: 'count half after a year' }
            ]}
            onchange={(value) => (age = value)}
          />
        {/if}
        <Button color="alternative" onclick={() => (saving = true)}>Export, import, delete</Button>
      </div>
    </div>

    {#if frames.length === 0}
      <div class="max-w-2xl">
        <DrillFigures simulated={false} level={2} /><DrillFigures simulated={true} level={2} />
      </div>
    {:else if lessons === null}
      <p class="mt-4 text-soft" role="status">Working it out …</p>
    {/if}
    {#if groups.length > 0}
      <div class="mt-4" data-testid="kit-groups">
        {#each groups as group (group.key)}<GroupRow {group} {scale} />{/each}
        <p class="flex border-t border-line pt-1 text-[13px] text-soft max-sm:hidden" aria-hidden="true">
          <span class="w-56 shrink-0"></span>
          <span class="grid flex-1 grid-cols-2"
            ><span class="pr-8 text-right">in front, towards you</span><span class="pl-8">behind</span></span
          >
          <span class="w-64 shrink-0"></span>
        </p>
      </div>
    {/if}

    {#if frames.length > 0}
      <div class="mt-6 grid gap-x-10 gap-y-6 border-t border-line pt-4 lg:grid-cols-[minmax(0,1fr)_minmax(0,1.1fr)]">
        <section aria-label="Were the predictions right?">
          {#if honesty}
            <h2 class="condensed text-[21px] leading-tight font-bold" data-testid="honesty">{honestyTitle(honesty)}</h2>
            <p class="mt-1 text-pretty">
              {honestyWords(honesty)}<HowComputed of="honesty" more={brierWords(honesty)} class="ml-1" />
            </p>
            <HonestyChart {honesty} />
          {:else}
            <h2 class="condensed text-[21px] leading-tight font-bold">Were the predictions right?</h2>
            <p class="mt-1 text-pretty text-soft">Import all frames of a planned setup, keepers or not, to see it.</p>
          {/if}
        </section>
        <section aria-label="What to do with it">
          <h2 class="condensed text-[21px] leading-tight font-bold">Your own numbers</h2>
          {#if sways.length > 0}
            <ul class="mt-1">
              {#each sways as sway (sway.stance)}
                <li class="border-b border-line py-1">
                  <b class="font-semibold capitalize">{sway.stance}</b>, you and your people sway {swayFactorWords(
                    sway.factor
                  )}
                </li>
              {/each}
            </ul>
          {/if}
          <UseFigures {groups} {from} />
          <PersonsFigures persons={lessons?.persons ?? []} />
          <DrillFigures simulated={from === 'simulated'} level={3} />
          <Rates {frames} />
        </section>
      </div>
    {/if}
  {/if}
</main>
<OnceOpen open={saving}>
  {#await import('./RecordFiles.svelte') then { default: RecordFiles }}
    <RecordFiles bind:open={saving} all={all ?? []} onchange={load} />
  {/await}
</OnceOpen>
