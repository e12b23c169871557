<script lang="ts">
  import { Popover } from 'flowbite-svelte';
  import { Settings2 } from '@lucide/svelte';
  import { themes, type Theme } from '$lib/data';
  import Choice from '$lib/controls/Choice.svelte';
  import LengthField from '$lib/controls/LengthField.svelte';
  import { getApp } from '$lib/state/app.svelte';

  let { jobId }: { jobId: string } = $props();
  const app = getApp();
  const job = $derived(app.job(jobId));
  const id = $props.id();
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
      value={app.settings.unit}
      options={[
        { value: 'metric', name: 'metres' },
        { value: 'feet', name: 'feet and inches' }
      ]}
      onchange={(unit) => app.setSettings({ unit })}
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
        onchange={(stopStep) => app.changeJob(jobId, 'Aperture steps', { stopStep })}
      />
    {/if}
    <Choice
      legend="Look"
      value={app.settings.theme}
      options={themeChoices}
      onchange={(theme: Theme) => app.setSettings({ theme })}
    />
    <LengthField
      label="One of your paces"
      valueMm={app.settings.paceMm}
      stepMm={10}
      onchange={(mm) => app.setSettings({ paceMm: Math.min(1500, Math.max(300, mm)) })}
    />
  </div>
</Popover>
