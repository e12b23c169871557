<script lang="ts">
  import { Button } from 'flowbite-svelte';
  import { schoolQuestions, usualSchools } from '$core/technique/schools';
  import Picker from '$lib/controls/Picker.svelte';
  import { getApp } from '$lib/state/app.svelte';

  /** Where practitioners disagree: answered once, for every new setup. */
  const app = getApp();
  const schools = $derived(app.settings.now.schools);
  const usual = $derived(JSON.stringify(schools) === JSON.stringify(usualSchools));
  function back() {
    const label = 'Back to the usual answers';
    app.messages.done(`${label}.`, app.settings.edit(label, { schools: usualSchools }));
  }
</script>

<p class="text-pretty">
  Photographers disagree on these. New setups start with your answers; change any of them per setup.
</p>
<div class="mt-3 grid grid-cols-1 items-start gap-x-4 gap-y-2.5 sm:grid-cols-2">
  {#each schoolQuestions as { key, question, answers } (key)}
    <Picker
      label={question}
      items={answers}
      value={schools[key]}
      onchange={(value) => void app.settings.edit('An answer of yours', { schools: { ...schools, [key]: value } })}
    />
  {/each}
</div>
<div class="mt-4">
  <Button size="sm" color="alternative" disabled={usual} onclick={back}>Back to the usual answers</Button>
</div>
