<script lang="ts">
  import { Button, Checkbox } from 'flowbite-svelte';
  import type { CsvRead } from '$core/formats/csv';
  import {
    guessMapping,
    readShots,
    shotFields,
    writeShotList,
    type Mapping,
    type ShotField
  } from '$core/formats/shotList';
  import { saveBlob } from '$lib/controls/download';
  import Dialog from '$lib/controls/Dialog.svelte';
  import Picker from '$lib/controls/Picker.svelte';
  import { getApp } from '$lib/state/app.svelte';
  import { readList } from '$lib/state/readJob';

  /** The shot list as a table: out with what is ticked, in by saying what its columns are. */
  let { open = $bindable() }: { open: boolean } = $props();
  const app = getApp();
  const fieldNames: Readonly<Record<ShotField, string>> = {
    name: 'Name',
    time: 'Starts at',
    fixed: 'Fixed time',
    minutes: 'Minutes',
    priority: 'Priority',
    place: 'Place',
    people: 'People, by name',
    count: 'How many people',
    notes: 'Notes'
  };
  let leaving = $state({ names: true, places: true });
  let table = $state.raw<CsvRead | null>(null);
  let mapping = $state.raw<Mapping>(guessMapping([]));
  let fileName = $state('');
  let encoding = $state('');
  let refused = $state('');
  let chooser = $state<HTMLInputElement>();
  const read = $derived(table ? readShots(table.rows, mapping) : null);
  const mostShown = 6;

  function save() {
    const rows = app.day.table.entries.flatMap((entry) => {
      const row = app.open.row(entry.item.id);
      if (!row) return [];
      const { plan } = app.open.planned(row.setup);
      return [
        {
          setup: row.setup,
          plan: plan.kind === 'plan' ? plan : null,
          placeName: app.open.places.find((place) => place.id === entry.item.placeId)?.name ?? '',
          startsAt: entry.startsAt
        }
      ];
    });
    const text = writeShotList(rows, app.open.kit, app.settings.now.unit, leaving);
    const name = (app.open.job?.name ?? 'job').replaceAll(/[^\p{L}\p{N}]+/gu, '-');
    // With its mark, so that spreadsheets read it as UTF-8.
    saveBlob(new Blob(['\uFEFF', text], { type: 'text/csv' }), `${name}.csv`);
  }
  async function choose(event: Event) {
    const field = event.currentTarget as HTMLInputElement;
    const file = field.files?.[0];
    field.value = '';
    if (!file) return;
    table = null;
    fileName = file.name;
    const answer = await readList(file).catch((error: unknown) =>
      error instanceof Error ? error.message : 'It could not be read.'
    );
    refused = typeof answer === 'string' ? answer : '';
    if (typeof answer === 'string') return;
    ({ table, encoding } = answer);
    mapping = guessMapping(answer.table.header);
  }
  function add() {
    if (!read || app.setups.addShots(read.shots) === 0) return;
    open = false;
    table = null;
  }
</script>

<Dialog bind:open title="Shot list" size="lg">
  <div class="space-y-5">
    <section aria-label="Save the list">
      <p class="text-pretty">
        One row a setup with its call, for a spreadsheet (CSV). What others should not read stays here:
      </p>
      <div class="mt-2 flex flex-wrap items-center gap-x-5 gap-y-2">
        <Checkbox bind:checked={leaving.names}>with names</Checkbox>
        <Checkbox bind:checked={leaving.places}>with places</Checkbox>
        <Button color="alternative" onclick={save}>Save the list</Button>
      </div>
    </section>
    <section aria-label="Read a list" class="border-t border-line pt-4">
      <div class="flex flex-wrap items-center gap-3">
        <Button color="alternative" onclick={() => chooser?.click()}>Read a list …</Button>
        <input
          bind:this={chooser}
          type="file"
          accept=".csv,.tsv,.txt,text/csv"
          class="sr-only"
          tabindex="-1"
          aria-label="List of shots"
          onchange={choose}
        />
        <span class="text-soft"
          >{table
            ? `${fileName}: ${table.rows.length} rows${encoding === 'UTF-8' ? '' : `, read as ${encoding}`}`
            : 'A table with a row for each picture.'}</span
        >
      </div>
      {#if refused !== ''}<p role="alert" class="mt-2 text-pencil">{fileName} was not read. {refused}</p>{/if}
      {#if table && read}
        <p class="label mt-3">What each column is</p>
        <div class="mt-1 grid grid-cols-2 gap-2 sm:grid-cols-3">
          {#each shotFields as field (field)}
            <Picker
              label={fieldNames[field]}
              items={[
                { value: '', name: '–' },
                ...table.header.map((heading, index) => ({
                  value: String(index),
                  name: heading || `column ${index + 1}`
                }))
              ]}
              value={mapping[field] === null ? '' : String(mapping[field])}
              onchange={(value) => (mapping = { ...mapping, [field]: value === '' ? null : Number(value) })}
            />
          {/each}
        </div>
        {#if read.problems.length > 0}
          <div role="alert" class="mt-3 border-l-4 border-pencil pl-2">
            {#each read.problems.slice(0, mostShown) as problem (problem.row)}
              <p>Row {problem.row}: {problem.reason}</p>
            {/each}
            {#if read.problems.length > mostShown}<p>And {read.problems.length - mostShown} more.</p>{/if}
          </div>
        {/if}
        <Button class="mt-3" disabled={read.shots.length === 0} onclick={add}
          >{read.shots.length === 0
            ? 'Nothing can be taken'
            : `Add ${read.shots.length} ${read.shots.length === 1 ? 'setup' : 'setups'}${read.problems.length > 0 ? ', without those rows' : ''}`}</Button
        >
      {/if}
    </section>
  </div>
</Dialog>
