<script lang="ts">
  import { bounds } from '$core/setup/bounds';
  import { themes } from '$lib/data';
  import Choice from '$lib/controls/Choice.svelte';
  import Fold from '$lib/controls/Fold.svelte';
  import LeavingFields from '$lib/controls/LeavingFields.svelte';
  import HowList from '$lib/controls/HowList.svelte';
  import LengthField from '$lib/controls/LengthField.svelte';
  import StopSteps from '$lib/controls/StopSteps.svelte';
  import ViewingFields from '$lib/controls/ViewingFields.svelte';
  import { setFieldScope } from '$lib/controls/field.svelte';
  import { getApp } from '$lib/state/app.svelte';
  import BackupPanel from './BackupPanel.svelte';
  import Figures from './Figures.svelte';
  import FrameKeys from './FrameKeys.svelte';
  import Schools from './Schools.svelte';
  import Section from './Section.svelte';
  import Space from './Space.svelte';

  /** Everything there is to set, in one place. */
  const app = getApp();
  setFieldScope(() => 'settings');
  const settings = $derived(app.settings.now);
</script>

<main class="mx-auto w-full max-w-[1100px] px-4 py-6">
  <h1 class="condensed mb-5 text-[28px] leading-tight font-bold">Settings</h1>
  <Section id="measures" title="Units and appearance">
    <div class="flex flex-wrap items-end gap-x-6 gap-y-3">
      <Choice
        legend="Lengths"
        value={settings.unit}
        options={[
          { value: 'metric', name: 'metres' },
          { value: 'feet', name: 'feet and inches' }
        ]}
        onchange={(unit) => app.settings.set({ unit })}
      />
      <Choice
        legend="Theme"
        value={settings.theme}
        options={themes.map((value) => ({ value, name: value }))}
        onchange={(theme) => app.settings.set({ theme })}
      />
      <div class="w-44">
        <LengthField
          label="Your pace"
          bounds={bounds.paceMm}
          valueMm={settings.paceMm}
          stepMm={10}
          onchange={(paceMm) => void app.settings.edit('Your pace', { paceMm })}
        />
      </div>
    </div>
  </Section>
  <Section id="new" title="New jobs and setups" about="Defaults. You can change each one later.">
    <div class="flex flex-wrap items-start gap-x-6 gap-y-3">
      <StopSteps value={settings.stopStep} onchange={(stopStep) => app.settings.set({ stopStep })} />
      <div class="w-72 space-y-2">
        <ViewingFields
          viewing={settings.viewing}
          onchange={(viewing) => void app.settings.edit('How pictures are seen', { viewing })}
        />
      </div>
    </div>
  </Section>
  <Section
    id="backup"
    title="Backup"
    about="Jobs, frames, kit and settings live in this browser only. A file keeps them safe."
  >
    <BackupPanel />
  </Section>
  <Section
    id="names"
    title="Names in files"
    about="Exports say Person 1 instead of a name, unless ticked. Job files hold the whole job."
  >
    <LeavingFields places />
  </Section>
  <Section id="space" title="In this browser"><Space /></Section>
  <Section id="schools" title="How you work"><Schools /></Section>
  <Section id="keys" title="Frames" about="The keys you decide with, and how eyes are shown."><FrameKeys /></Section>
  <Section id="figures" title="Numbers behind the keeper rate"><Figures /></Section>
  <Section id="how" title="How it is computed"><Fold title="Every number"><HowList /></Fold></Section>
</main>
