<script lang="ts">
  import { Button } from 'flowbite-svelte';
  import { writeCalendar } from '$core/formats/calendar';
  import { writeShotList } from '$core/formats/shotList';
  import { dayTitle } from '$core/words/day';
  import { listLine } from '$core/words/paperCard';
  import Choice from '$lib/controls/Choice.svelte';
  import { fileName, saveBlob } from '$lib/controls/download';
  import { dateWords } from '$lib/controls/dates';
  import LeavingFields from '$lib/controls/LeavingFields.svelte';
  import Progress from '$lib/controls/Progress.svelte';
  import { getApp } from '$lib/state/app.svelte';
  import { makeCards, makeList } from '../../workers/clients/paper';
  import { errorReason } from '$lib/state/job/services';
  import type { PerPage } from '../../paper/cards';
  import { papers, type Paper } from '../../paper/sizes';
  import { calendarEvents, cardsOf, paperCards, exportTitle } from './dayExport';

  /** The day as it leaves: on paper, as a table, as a calendar; only with what is ticked. */
  let { chosen }: { chosen: readonly string[] } = $props();
  const app = getApp();
  let paper = $state<Paper>('A4');
  let perPage = $state<'1' | '2' | '4'>('4');
  /** Share of the pages made; null when none are. */
  let making = $state<number | null>(null);
  let failed = $state('');
  const job = $derived(app.open.job);
  const leaving = $derived(app.settings.now.leaving);
  const title = $derived(exportTitle(app, leaving));

  async function make(what: () => Promise<Blob>, suffix: string) {
    failed = '';
    making = 0;
    try {
      saveBlob(await what(), `${fileName(title)}${suffix}`);
    } catch (error) {
      failed = `It could not be made: ${errorReason(error)}`;
    } finally {
      making = null;
    }
  }
  const cards = (ids?: readonly string[]) =>
    make(async () => {
      const asked = await paperCards(app, leaving, ids);
      const per = Number(perPage) as PerPage;
      return makeCards({ title, cards: asked, paper, perPage: per }, (share) => (making = share));
    }, '-cards.pdf');
  const list = () =>
    make(() => {
      const date = job?.date ? `${dateWords(job.date, true)} · ` : '';
      const under = `${date}${dayTitle(app.day.table)}`;
      return makeList({ title, under, paper, lines: cardsOf(app, leaving).map(listLine) });
    }, '-list.pdf');
  function table() {
    const rows = cardsOf(app, leaving).map(({ result, ...row }) => ({
      ...row,
      plan: result.kind === 'plan' ? result : null
    }));
    const text = writeShotList(rows, app.open.kit, app.settings.now.unit, leaving.names);
    // With its mark, so that spreadsheets read it as UTF-8.
    saveBlob(new Blob(['\uFEFF', text], { type: 'text/csv' }), `${fileName(title)}.csv`);
  }
  function calendar() {
    if (!job?.date) return;
    const events = calendarEvents(app, leaving);
    const text = writeCalendar({ name: title, date: job.date, now: app.now(), events });
    saveBlob(new Blob([text], { type: 'text/calendar' }), `${fileName(title)}.ics`);
  }
  const timed = $derived(app.day.table.entries.some((entry) => entry.startsAt !== null));
</script>

<section aria-label="Save the day">
  <div class="flex flex-wrap items-center gap-x-5 gap-y-2">
    <span class="text-soft">Include in the export:</span>
    <LeavingFields places />
  </div>
  <div class="mt-4 flex flex-wrap items-end gap-x-4 gap-y-3">
    <Choice
      legend="Cards on a page"
      value={perPage}
      options={[
        { value: '1', name: '1' },
        { value: '2', name: '2' },
        { value: '4', name: '4' }
      ]}
      onchange={(value) => (perPage = value)}
    />
    <Choice
      legend="Paper"
      value={paper}
      options={papers.map((value) => ({ value, name: value }))}
      onchange={(value) => (paper = value)}
    />
    <Button disabled={making !== null} onclick={() => cards()}>Field cards (PDF)</Button>
    {#if chosen.length > 0}
      <Button color="alternative" disabled={making !== null} onclick={() => cards(chosen)}
        >Only the {chosen.length === 1 ? 'chosen one' : `${chosen.length} chosen`}</Button
      >
    {/if}
    <Button color="alternative" disabled={making !== null} onclick={list}>List (PDF)</Button>
  </div>
  <div class="mt-3 flex flex-wrap items-center gap-x-4 gap-y-2">
    <Button color="alternative" onclick={table}>Table (CSV)</Button>
    <Button color="alternative" disabled={!job?.date || !timed} onclick={calendar}>Calendar (iCalendar)</Button>
    {#if !job?.date}
      <span class="label">A calendar needs the date of the job.</span>
    {:else if !timed}
      <span class="label">A calendar needs a time somewhere in the day.</span>
    {/if}
  </div>
  {#if making !== null}<div class="mt-3"><Progress label="Pages made" share={making} /></div>{/if}
  {#if failed !== ''}<p role="alert" class="mt-2 text-pencil">{failed}</p>{/if}
</section>
