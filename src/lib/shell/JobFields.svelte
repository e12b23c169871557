<script lang="ts">
  import { Button } from 'flowbite-svelte';
  import type { Job } from '$core/job/schema';
  import { limits } from '$core/schema/values';
  import { setFieldScope } from '$lib/controls/field.svelte';
  import Picker from '$lib/controls/Picker.svelte';
  import StopSteps from '$lib/controls/StopSteps.svelte';
  import TextField from '$lib/controls/TextField.svelte';
  import type { EditManner } from '$lib/data';
  import { getApp } from '$lib/state/app.svelte';

  let { jobId, job, narrow = false }: { jobId: string; job: Job; narrow?: boolean } = $props();
  const app = getApp();
  setFieldScope(() => jobId);
  const { bags } = $derived(app.kit);

  function change(label: string, changes: Partial<Job>, how: EditManner) {
    return app.jobs.change(jobId, label, changes, how) === null;
  }
</script>

<div
  class="grid gap-3 {narrow ? '' : bags.length > 0 ? 'sm:grid-cols-[2fr_1fr_1fr_3fr]' : 'sm:grid-cols-[2fr_1fr_3fr]'}"
>
  <TextField label="Job" value={job.name} onchange={(name, how) => change('Job name', { name }, how)} />
  <TextField
    label="Date"
    type="date"
    value={job.date ?? ''}
    optional
    onchange={(date, how) => change('Date', { date: date === '' ? null : date }, how)}
  />
  {#if bags.length > 0}
    <Picker
      label="Bag"
      items={[{ value: '', name: 'everything there is' }, ...bags.map(({ id, name }) => ({ value: id, name }))]}
      value={bags.some((bag) => bag.id === job.bagId) ? (job.bagId ?? '') : ''}
      onchange={(id) => change('Bag', { bagId: id === '' ? null : id }, null)}
    />
  {/if}
  <TextField
    label="Notes"
    value={job.notes}
    maxlength={limits.maxNotesLength}
    optional
    onchange={(notes, how) => change('Notes', { notes }, how)}
  />
  <StopSteps value={job.stopStep} onchange={(stopStep) => change('Aperture steps', { stopStep }, null)} />
  {#if job.habits}
    <div>
      <p class="text-pretty">This job came with figures of its own for how focus lands and people sway.</p>
      <Button
        size="xs"
        color="alternative"
        class="mt-1"
        onclick={() => change('Own figures for this job', { habits: null }, null)}>Use mine</Button
      >
    </div>
  {/if}
</div>
