<script lang="ts">
  import { refusedWords } from '$core/words/refused';
  import { Button } from 'flowbite-svelte';
  import type { CsvRead } from '$core/formats/csv';
  import { guessMapping, readShots, shotFields, type Mapping, type ShotField } from '$core/formats/shotList';
  import FileInput from '$lib/controls/FileInput.svelte';
  import Picker from '$lib/controls/Picker.svelte';
  import { getApp } from '$lib/state/app.svelte';
  import { readList } from '../../workers/clients/files';

  /** A table of shots read, by saying what its columns are. */
  let { onadded }: { onadded: () => void } = $props();
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
  let table = $state.raw<CsvRead | null>(null);
  let mapping = $state.raw<Mapping>(guessMapping([]));
  let fileName = $state('');
  let encoding = $state('');
  let refused = $state('');
  let chooser = $state<ReturnType<typeof FileInput>>();
  const read = $derived(table ? readShots(table.rows, mapping) : null);
  const mostShown = 6;
  /** Of a column, characters shown to choose it by. */
  const longestHeading = 60;

  async function choose(file: File) {
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
    table = null;
    onadded();
  }
</script>

<section aria-label="Read a list">
  <div class="flex flex-wrap items-center gap-3">
    <Button color="alternative" onclick={() => chooser?.open()}>Read a list …</Button>
    <FileInput bind:this={chooser} label="List of shots" accept=".csv,.tsv,.txt,text/csv" onfile={choose} />
    <span class="text-soft"
      >{table
        ? `${fileName}: ${table.rows.length} rows${encoding === 'UTF-8' ? '' : `, read as ${encoding}`}`
        : 'A table with a row for each setup.'}</span
    >
  </div>
  {#if refused !== ''}<p role="alert" class="mt-2 text-pencil">
      {refusedWords(`import ${fileName}`, refused)}
    </p>{/if}
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
              name: heading.slice(0, longestHeading) || `column ${index + 1}`
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
        ? 'Nothing to import'
        : `Add ${read.shots.length} ${read.shots.length === 1 ? 'setup' : 'setups'}${read.problems.length > 0 ? ', without those rows' : ''}`}</Button
    >
  {/if}
</section>
