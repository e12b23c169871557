<script lang="ts">
  import { Button } from 'flowbite-svelte';
  import { page } from '$app/state';
  import { goto } from '$app/navigation';
  import { missingFacts } from '$core/frames/facts';
  import { acceptedPictures } from '$core/photos/kind';
  import { framesTitle, missingWords } from '$core/words/frames';
  import OnceOpen from '$lib/controls/OnceOpen.svelte';
  import { bestOfBursts, pairThatHolds } from '$core/frames/choose';
  import { bestWords, pairWords } from '$core/words/compare';
  import EmptyFrames from '$lib/frames/EmptyFrames.svelte';
  import EyesTable from '$lib/frames/EyesTable.svelte';
  import FramesTools from '$lib/frames/FramesTools.svelte';
  import FrameView from '$lib/frames/FrameView.svelte';
  import SideBySide from '$lib/frames/SideBySide.svelte';
  import ThroughFrames from '$lib/frames/ThroughFrames.svelte';
  import ImportBar from '$lib/frames/ImportBar.svelte';
  import { judging, nameIn, noSetup } from '$lib/frames/judging';
  import Header from '$lib/shell/Header.svelte';
  import Missing from '$lib/shell/Missing.svelte';
  import { getApp } from '$lib/state/app.svelte';

  const app = getApp();
  const jobId = $derived(page.params['job'] ?? '');
  const job = $derived(app.store.table('jobs').get(jobId)?.value ?? (app.open.id === jobId ? app.open.job : undefined));
  const isOpen = $derived(app.open.id === jobId);
  let simulating = $state(false);
  let saving = $state(false);
  let saying = $state(false);
  let order = $state<'best' | 'time'>('best');
  let shown = $state<'all' | 'open' | 'kept'>('all');
  let input = $state<HTMLInputElement>();
  $effect(() => {
    if (job && !isOpen) void app.openJob(jobId);
  });

  /** What the address names, else the setup with most frames. */
  const groups = $derived([...app.frames.bySetup.entries()]);
  const asked = $derived(page.url.searchParams.get('setup'));
  const setupId = $derived.by(() => {
    if (asked !== null) return asked === noSetup ? null : asked;
    const [most] = [...groups].sort((a, b) => b[1].length - a[1].length);
    return most?.[0] ?? null;
  });
  const now = $derived(judging(app, setupId));
  const { bursts, judged, columns, row } = $derived(now);
  const nameOf = nameIn(app);
  const missing = $derived(missingFacts(judged.map(({ frame }) => frame)));
  const ranked = $derived([...judged].sort((a, b) => a.rank - b.rank));
  const filtered = $derived(
    (order === 'best' ? ranked : judged).filter(({ frame }) =>
      shown === 'all' ? true : shown === 'kept' ? frame.choice === 'keep' : frame.choice === null
    )
  );
  const odds = $derived.by(() => {
    const plan = row ? app.open.planned(row.setup).plan : null;
    return plan?.kind === 'plan' ? (plan.stops[plan.selected]?.odds ?? null) : null;
  });
  const pair = $derived(
    pairThatHolds(
      ranked,
      columns.map(({ personId }) => personId)
    )
  );
  const best = $derived.by(() => {
    const byId = new Map(judged.map((one) => [one.frame.id, one]));
    return new Map(
      [...bestOfBursts(judged, bursts)].flatMap(([id, next]): [string, string][] => {
        const one = byId.get(id);
        return one ? [[id, bestWords(one, next, nameOf)]] : [];
      })
    );
  });
  const mostBeside = 6;
  const usualBeside = 3;
  /** Marked to be shown beside each other. */
  let beside = $state.raw<readonly string[]>([]);
  function mark(id: string) {
    beside = beside.includes(id) ? beside.filter((one) => one !== id) : [...beside, id].slice(-mostBeside);
  }
  /** Those that are marked; without two, the pair that holds everybody, else the first of the table. */
  function compare() {
    const there = beside.filter((id) => judged.some(({ frame }) => frame.id === id));
    const proposed = pair ? [pair.first, pair.second] : filtered.slice(0, usualBeside);
    const ids = there.length >= 2 ? there : proposed.map(({ frame }) => frame.id);
    if (ids.length >= 2) void go({ beside: ids.join(' ') });
  }
  const compared = $derived(
    (page.url.searchParams.get('beside') ?? '')
      .split(' ')
      .flatMap((id) => judged.find(({ frame }) => frame.id === id) ?? [])
      .slice(0, mostBeside)
  );
  const person = $derived(page.url.searchParams.get('person'));
  const opened = $derived(page.url.searchParams.get('frame'));
  const openedJudged = $derived(judged.find(({ frame }) => frame.id === opened));

  function go(changes: Record<string, string | null>) {
    const query = { ...Object.fromEntries(page.url.searchParams), ...changes };
    const text = Object.entries(query)
      .flatMap(([name, value]) => (value === null ? [] : [`${name}=${encodeURIComponent(value)}`]))
      .join('&');
    return goto(`/frames/${jobId}${text === '' ? '' : `?${text}`}`, { keepFocus: true, noScroll: true });
  }
  function picked(event: Event) {
    const field = event.currentTarget as HTMLInputElement;
    const files = [...(field.files ?? [])];
    field.value = '';
    void app.frames.add(files, asked === noSetup ? null : asked);
  }
</script>

<svelte:head><title>{job ? `Frames · ${job.name} · Focalis` : 'Focalis'}</title></svelte:head>

{#if job}
  <div class="flex h-[calc(100dvh-var(--message-room,0px))] flex-col">
    <Header {jobId} page="frames" />
    {#if openedJudged}
      <FrameView
        judged={openedJudged}
        {now}
        {nameOf}
        order={filtered.map(({ frame }) => frame.id)}
        onopen={(id) => go({ frame: id })}
      />
    {:else if compared.length >= 2}
      <SideBySide
        frames={compared}
        {now}
        {nameOf}
        personId={person}
        onperson={(id) => go({ person: id })}
        onclose={() => go({ beside: null, person: null })}
        ondrop={(dropped) =>
          go({
            beside: compared
              .map(({ frame }) => frame.id)
              .filter((id) => id !== dropped)
              .join(' ')
          })}
      />
    {:else if person !== null && judged.length > 0}
      <ThroughFrames
        judged={filtered}
        personId={person}
        {nameOf}
        onopen={(id) => go({ frame: id })}
        onclose={() => go({ person: null })}
      />
    {:else}
      <main class="flex min-h-0 flex-1 flex-col">
        <input
          bind:this={input}
          type="file"
          multiple
          class="sr-only"
          tabindex="-1"
          aria-label="Photos"
          accept={acceptedPictures}
          onchange={picked}
        />
        <div class="px-4 pt-4">
          <div class="mb-3 flex flex-wrap items-start gap-x-6 gap-y-2">
            <div class="min-w-0 flex-1">
              <h1 class="condensed text-[26px] leading-tight font-bold text-pretty" data-testid="frames-title">
                {judged.length === 0
                  ? 'Who is sharp in which frame?'
                  : pair
                    ? pairWords(pair, nameOf)
                    : framesTitle(ranked, nameOf)}
              </h1>
              <p class="text-soft">
                {#if judged.length === 0}
                  Import your photos. They are measured here and never leave this browser.
                {:else}
                  {[
                    row?.setup.name ?? 'No setup',
                    judged.length === 1
                      ? 'one frame'
                      : `${judged.length} frames in ${bursts.length === 1 ? 'one burst' : `${bursts.length} bursts`}`,
                    columns.length > 0 ? `${columns.length} who must be sharp` : null,
                    odds === null ? null : `predicted: ${Math.round(odds * 100)}%`
                  ]
                    .filter((part) => part !== null)
                    .join(' · ')}
                {/if}
              </p>
              {#if missing.length > 0}
                <p>
                  {missingWords(missing)}
                  <button type="button" class="min-h-6 underline" onclick={() => (saying = true)}>Say it</button>
                </p>
              {/if}
            </div>
            <div class="flex flex-wrap gap-2">
              <Button onclick={() => input?.click()}>Import photos</Button>
              <Button color="alternative" onclick={() => (simulating = true)}>Simulate a burst</Button>
              {#if app.frames.list.length > 0}
                <Button color="alternative" disabled={judged.length < 2} onclick={compare}>Side by side</Button>
                <Button color="alternative" onclick={() => (saving = true)}>Save results</Button>
              {/if}
            </div>
          </div>
          <ImportBar />
          {#if app.frames.list.length > 0}
            <FramesTools {judged} {setupId} bind:order bind:shown onsetup={(id) => go({ setup: id, frame: null })} />
          {/if}
        </div>
        {#if app.frames.list.length === 0}
          <EmptyFrames />
        {/if}
        {#if judged.length > 0}
          <EyesTable
            judged={filtered}
            {columns}
            {nameOf}
            {beside}
            {best}
            onbeside={mark}
            oncompare={compare}
            onperson={(id) => go({ person: id })}
            onopen={(id) => go({ frame: id })}
          />
        {/if}
      </main>
    {/if}
  </div>
  <OnceOpen open={simulating}>
    {#await import('$lib/frames/SimulateDialog.svelte') then { default: SimulateDialog }}<SimulateDialog
        bind:open={simulating}
        {setupId}
        ontaken={(files, id) => {
          void app.frames.add(files, id);
          void go({ setup: id });
        }}
      />{/await}
  </OnceOpen>
  <OnceOpen open={saying}>
    {#await import('$lib/frames/SayFacts.svelte') then { default: SayFacts }}<SayFacts
        bind:open={saying}
        frames={judged.map(({ frame }) => frame)}
      />{/await}
  </OnceOpen>
  <OnceOpen open={saving}>
    {#await import('$lib/frames/SaveResults.svelte') then { default: SaveResults }}<SaveResults
        bind:open={saving}
      />{/await}
  </OnceOpen>
{:else}
  <Missing />
{/if}
