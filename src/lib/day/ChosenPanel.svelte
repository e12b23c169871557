<script lang="ts">
  import { Button, Checkbox } from 'flowbite-svelte';
  import { limits } from '$core/schema/values';
  import { usualSchedule } from '$core/setup/schedule';
  import { differentWords } from '$core/words/field';
  import { setFieldScope } from '$lib/controls/field.svelte';
  import Choice from '$lib/controls/Choice.svelte';
  import NumberField from '$lib/controls/NumberField.svelte';
  import Picker from '$lib/controls/Picker.svelte';
  import TextField from '$lib/controls/TextField.svelte';
  import { getApp } from '$lib/state/app.svelte';
  import TimeField from './TimeField.svelte';

  /** What is chosen of the day: one setup with its time and what became of it, or several to move together. */
  let { chosen, onclear }: { chosen: readonly string[]; onclear: () => void } = $props();
  const app = getApp();
  const { day, setups, places } = app;
  const rows = $derived(chosen.flatMap((id) => app.open.row(id) ?? []));
  const one = $derived(rows.length === 1 ? rows[0] : undefined);
  const ids = $derived(rows.map((row) => row.id));
  const first = $derived(rows[0]?.setup.schedule ?? usualSchedule);
  const others = $derived(app.jobs.current.filter((job) => job.id !== app.open.id));
  setFieldScope(() => `day ${one?.id ?? ''}`);
  let how = $state<'copied' | 'moved'>('copied');

  async function transfer(jobId: string) {
    await setups.transfer(rows, jobId, how);
    if (how === 'moved') onclear();
  }
  function remove() {
    setups.removeAll(rows);
    onclear();
  }
</script>

<section aria-labelledby="chosen-title" class="mb-6 border-l-4 border-ink pl-3">
  <h2 id="chosen-title" class="condensed text-[18px] font-bold">
    {one ? one.setup.name : `${rows.length} setups chosen`}
  </h2>
  {#if one}
    {#key one.id}
      <div class="mt-2 grid grid-cols-[5rem_4rem_1fr] items-end gap-2">
        <TimeField
          label="Starts at"
          value={one.setup.schedule.startsAt}
          onchange={(startsAt, by) => day.schedule(ids, 'Time', { startsAt }, by)}
        />
        <NumberField
          label="Minutes"
          value={one.setup.schedule.minutes}
          min={1}
          max={600}
          step={5}
          whole
          onchange={(minutes, by) => day.schedule(ids, 'Minutes', { minutes }, by)}
        />
        <Picker
          label="Place"
          items={[
            ...app.open.places.map(({ id, name }) => ({ value: id, name })),
            { value: 'new', name: 'a new place, copied from here' }
          ]}
          value={places.of(one.id)?.id ?? ''}
          onchange={(id) => (id === 'new' ? places.add(one.id) : places.use(one.id, id))}
        />
      </div>
    {/key}
    <Checkbox
      class="mt-2"
      checked={one.setup.schedule.fixed}
      disabled={one.setup.schedule.startsAt === null}
      onchange={(event: Event) =>
        day.schedule(ids, 'Fixed time', { fixed: (event.currentTarget as HTMLInputElement).checked })}
      >The time is fixed: a ceremony, the light</Checkbox
    >
  {/if}
  <div class="mt-2 flex flex-wrap items-end gap-2">
    <Choice
      legend="Priority"
      value={first.priority}
      options={[
        { value: 'must', name: 'must' },
        { value: 'ifTime', name: 'if time' }
      ]}
      onchange={(priority) => day.schedule(ids, 'Priority', { priority })}
    />
    {#if one}
      <Choice
        legend="On the day"
        value={one.setup.taken.doneAt ? 'done' : 'open'}
        options={[
          { value: 'open', name: 'to do' },
          { value: 'done', name: 'done' }
        ]}
        onchange={(value) => day.tick(one.id, value === 'done')}
      />
      <Choice
        legend="Result"
        value={one.setup.taken.verdict ?? 'none'}
        options={[
          { value: 'none', name: '–' },
          { value: 'good', name: 'good' },
          { value: 'soft', name: 'soft' },
          { value: 'redo', name: 'redo' }
        ]}
        onchange={(value) => day.taken(ids, 'How it is', { verdict: value === 'none' ? null : value })}
      />
    {/if}
  </div>
  {#if one}
    {#key one.id}
      <div class="mt-2">
        <TextField
          label="Note for next time"
          value={one.setup.taken.note}
          maxlength={limits.maxNotesLength}
          optional
          onchange={(note, by) => day.taken(ids, 'Note', { note }, by)}
        />
      </div>
    {/key}
    {@const different = differentWords(one.setup, app.open.kit, one.setup.taken.different, app.settings.now.unit)}
    {#if different !== 'as planned'}<p class="mt-2 text-pretty">As shot: {different}.</p>{/if}
  {/if}
  <div class="mt-3 flex flex-wrap items-end gap-2">
    {#if one}
      <Button color="alternative" onclick={() => setups.duplicate(one)}>Duplicate</Button>
    {/if}
    <Button color="alternative" onclick={remove}>Remove</Button>
    {#if others.length > 0}
      <Choice
        legend="To another job"
        value={how}
        options={[
          { value: 'copied', name: 'copy' },
          { value: 'moved', name: 'move' }
        ]}
        onchange={(value) => (how = value)}
      />
      <div class="w-40">
        <Picker
          label="Which job"
          items={[{ value: '', name: 'choose …' }, ...others.map((job) => ({ value: job.id, name: job.value.name }))]}
          value=""
          onchange={(id) => id !== '' && void transfer(id)}
        />
      </div>
    {/if}
    <Button color="alternative" onclick={onclear}>Clear selection</Button>
  </div>
</section>
