<script lang="ts">
  import { jobSchema, limits, type Job } from '$core/setup/schema';
  import TextField from '$lib/controls/TextField.svelte';
  import { getApp } from '$lib/state/app.svelte';

  let { jobId, job }: { jobId: string; job: Job } = $props();
  const app = getApp();

  function change(label: string, changes: Partial<Job>) {
    const valid = jobSchema.safeParse({ ...job, ...changes });
    if (valid.success) void app.changeJob(jobId, label, changes);
    else app.say(`${label}: ${valid.error.issues[0]?.message ?? 'not possible'}.`, 'problem');
  }
</script>

<div class="grid gap-3 sm:grid-cols-[2fr_1fr_3fr]">
  <TextField label="Job" value={job.name} onchange={(name) => change('Job name', { name })} />
  <TextField
    label="Date"
    type="date"
    value={job.date ?? ''}
    optional
    onchange={(date) => change('Date', { date: date === '' ? null : date })}
  />
  <TextField
    label="Notes"
    value={job.notes}
    maxlength={limits.maxNotesLength}
    optional
    onchange={(notes) => change('Notes', { notes })}
  />
</div>
