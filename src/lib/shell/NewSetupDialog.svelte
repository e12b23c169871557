<script lang="ts">
  import Dialog from '$lib/controls/Dialog.svelte';
  import type { TemplateChoices } from '$core/setup/templates';
  import TemplateChoice from './TemplateChoice.svelte';

  let { open = $bindable(false), onchoose }: { open: boolean; onchoose: (choices: TemplateChoices) => void } = $props();
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
</Dialog>
