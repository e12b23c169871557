<script lang="ts">
  import { Button } from 'flowbite-svelte';
  import { goto } from '$app/navigation';
  import type { TemplateChoices } from '$core/setup/templates';
  import Dialog from '$lib/controls/Dialog.svelte';
  import OnceOpen from '$lib/controls/OnceOpen.svelte';
  import { getApp } from '$lib/state/app.svelte';
  import TemplateChoice from './TemplateChoice.svelte';

  let { open = $bindable(false), onchoose }: { open: boolean; onchoose: (choices: TemplateChoices) => void } = $props();
  const app = getApp();
  let fromPhoto = $state(false);
</script>

<Dialog bind:open title="What are you shooting?" size="lg">
  <!-- Begun anew each time. -->
  {#key open}
    <TemplateChoice
      onchoose={(choices) => {
        open = false;
        onchoose(choices);
      }}
    />
  {/key}
  <div class="mt-4">
    <Button
      color="alternative"
      onclick={() => {
        open = false;
        fromPhoto = true;
      }}>Start from a photo</Button
    >
  </div>
</Dialog>
<OnceOpen open={fromPhoto}>
  {#await import('$lib/fromPhoto/PhotoDialog.svelte') then { default: PhotoDialog }}
    <PhotoDialog
      bind:open={fromPhoto}
      onmade={async (setup) => {
        const added = app.setups.addMade(setup);
        if (added) await goto(`/setup/${added}`);
      }}
    />
  {/await}
</OnceOpen>
