<script lang="ts">
  import { bounds } from '$core/setup/bounds';
  import { Button, Popover } from 'flowbite-svelte';
  import { Settings2 } from '@lucide/svelte';
  import { themes, type Theme } from '$lib/data';
  import Choice from '$lib/controls/Choice.svelte';
  import OnceOpen from '$lib/controls/OnceOpen.svelte';
  import LengthField from '$lib/controls/LengthField.svelte';
  import { getApp } from '$lib/state/app.svelte';

  let { jobId }: { jobId: string } = $props();
  const app = getApp();
  const job = $derived(app.jobs.list.find((row) => row.id === jobId)?.value);
  const id = $props.id();
  let figuresOpen = $state(false);
  let schoolsOpen = $state(false);
  const themeChoices = themes.map((value) => ({ value, name: value }));
</script>

<button type="button" {id} class="grid size-8 place-items-center" aria-label="Settings"
  ><Settings2 size={17} aria-hidden="true" /></button
>
<Popover
  triggeredBy="#{id}"
  trigger="click"
  placement="bottom-end"
  arrow={false}
  class="z-30 w-auto border-line bg-raised text-ink dark:bg-raised"
>
  <div class="space-y-3">
    <Choice
      legend="Lengths"
      value={app.settings.now.unit}
      options={[
        { value: 'metric', name: 'metres' },
        { value: 'feet', name: 'feet and inches' }
      ]}
      onchange={(unit) => app.settings.set({ unit })}
    />
    {#if job}
      <Choice
        legend="Steps of the aperture"
        value={job.stopStep}
        options={[
          { value: 'full', name: 'full' },
          { value: 'half', name: 'half' },
          { value: 'third', name: 'third' }
        ]}
        onchange={(stopStep) => app.jobs.change(jobId, 'Aperture steps', { stopStep })}
      />
    {/if}
    {#if job?.habits}
      <div class="max-w-64">
        <p class="text-pretty">This job came with figures of its own for how focus lands and people sway.</p>
        <Button
          size="xs"
          color="alternative"
          class="mt-1"
          onclick={() => app.jobs.change(jobId, 'Own figures for this job', { habits: null })}>Use mine</Button
        >
      </div>
    {/if}
    <Choice
      legend="Look"
      value={app.settings.now.theme}
      options={themeChoices}
      onchange={(theme: Theme) => app.settings.set({ theme })}
    />
    <Button size="xs" color="alternative" onclick={() => (schoolsOpen = true)}>How you work …</Button>
    <Button size="xs" color="alternative" onclick={() => (figuresOpen = true)}>Figures behind the odds …</Button>
    <LengthField
      label="One of your paces"
      bounds={bounds.paceMm}
      valueMm={app.settings.now.paceMm}
      stepMm={10}
      onchange={(paceMm) => app.settings.set({ paceMm })}
    />
  </div>
</Popover>
<OnceOpen open={schoolsOpen}>
  {#await import('./SchoolsDialog.svelte') then { default: SchoolsDialog }}<SchoolsDialog
      bind:open={schoolsOpen}
    />{/await}
</OnceOpen>
<OnceOpen open={figuresOpen}>
  {#await import('./HabitsDialog.svelte') then { default: HabitsDialog }}<HabitsDialog
      bind:open={figuresOpen}
    />{/await}
</OnceOpen>
