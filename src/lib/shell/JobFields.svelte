<script lang="ts">
  import { Input, Label } from 'flowbite-svelte';
  import { jobSchema, type Job } from '$core/setup/schema';
  import { getApp } from '$lib/state/app.svelte';

  let { jobId, job }: { jobId: string; job: Job } = $props();
  const app = getApp();
  const id = $props.id();

  function change(event: Event, label: string, changes: (value: string) => Partial<Job>, was: string) {
    const field = event.currentTarget as HTMLInputElement;
    const next = changes(field.value.trim());
    const valid = jobSchema.safeParse({ ...job, ...next });
    if (valid.success) void app.changeJob(jobId, label, next);
    else {
      field.value = was;
      app.say(`${label}: ${valid.error.issues[0]?.message ?? 'not possible'}.`, 'problem');
    }
  }
</script>

<div class="grid gap-3 sm:grid-cols-[2fr_1fr_3fr]">
  <div>
    <Label for="{id}-name">Job</Label>
    <Input
      id="{id}-name"
      value={job.name}
      maxlength={80}
      autocomplete="off"
      onchange={(event: Event) => change(event, 'Job name', (name) => ({ name }), job.name)}
    />
  </div>
  <div>
    <Label for="{id}-date">Date</Label>
    <Input
      id="{id}-date"
      type="date"
      value={job.date ?? ''}
      onchange={(event: Event) =>
        change(event, 'Date', (date) => ({ date: date === '' ? null : date }), job.date ?? '')}
    />
  </div>
  <div>
    <Label for="{id}-notes">Notes</Label>
    <Input
      id="{id}-notes"
      value={job.notes}
      maxlength={4000}
      autocomplete="off"
      onchange={(event: Event) => change(event, 'Notes', (notes) => ({ notes }), job.notes)}
    />
  </div>
</div>
