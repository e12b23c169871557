<script lang="ts">
  import { Modal } from 'flowbite-svelte';
  import type { TemplateChoices } from '$core/setup/templates';
  import TemplateChoice from './TemplateChoice.svelte';

  let { open = $bindable(false), onchoose }: { open: boolean; onchoose: (choices: TemplateChoices) => void } = $props();
</script>

<Modal bind:open title="What are you shooting?" size="sm" class="text-ink">
  <!-- Begun anew each time. -->
  {#key open}
    <TemplateChoice
      onchoose={(choices) => {
        open = false;
        onchoose(choices);
      }}
    />
  {/key}
</Modal>
