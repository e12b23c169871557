<script lang="ts">
  import { Modal } from 'flowbite-svelte';
  import type { Template } from '$core/setup/templates';
  import TemplateChoice from './TemplateChoice.svelte';

  let { open = $bindable(false), onchoose }: { open: boolean; onchoose: (template: Template) => void } = $props();
</script>

<Modal bind:open title="What are you shooting?" size="sm" class="text-ink">
  <TemplateChoice
    onchoose={(template) => {
      open = false;
      onchoose(template);
    }}
  />
</Modal>
