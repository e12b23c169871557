<script lang="ts">
  import { onMount } from 'svelte';
  import { goto } from '$app/navigation';
  import type { Setup } from '$core/setup/schema';
  import type { TemplateChoices } from '$core/setup/templates';
  import { getApp } from '$lib/state/app.svelte';

  const app = getApp();
  let first = $state(false);
  const on = async () => goto(await app.firstPath(), { replaceState: true });
  // Straight to the picture last worked on; a profile without any job gets one to begin with.
  onMount(async () => {
    first = await app.firstVisit();
    if (!first) await on();
  });

  async function begin(choices: TemplateChoices) {
    await app.openJob(await app.jobs.start());
    const added = app.setups.add(choices);
    app.settings.set({ welcomed: 'started' });
    if (added) await goto(`/setup/${added}?new=${choices.template}`, { replaceState: true });
  }
  async function beginWith(setup: Setup) {
    await app.openJob(await app.jobs.start());
    const added = app.setups.addMade(setup);
    app.settings.set({ welcomed: 'started' });
    if (added) await goto(`/setup/${added}`, { replaceState: true });
  }
  async function look() {
    app.settings.set({ welcomed: 'yes' });
    await on();
  }
</script>

<svelte:head><title>Focalis</title></svelte:head>

{#if first}
  {#await import('$lib/shell/Welcome.svelte') then { default: Welcome }}<Welcome
      onbegin={begin}
      onphoto={beginWith}
      onlook={look}
    />{/await}
{/if}
