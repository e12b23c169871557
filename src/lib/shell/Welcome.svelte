<script lang="ts">
  import { Button } from 'flowbite-svelte';
  import { Aperture } from '@lucide/svelte';
  import type { TemplateChoices } from '$core/setup/templates';
  import TemplateChoice from './TemplateChoice.svelte';

  /** The first visit: one question, and one press to a call. */
  let { onbegin, onlook }: { onbegin: (choices: TemplateChoices) => unknown; onlook: () => unknown } = $props();
</script>

<main class="mx-auto w-full max-w-3xl px-4 pt-10 pb-12">
  <p class="flex items-center gap-1.5 text-[17px] font-bold tracking-tight">
    <Aperture size={19} aria-hidden="true" />Focalis
  </p>
  <h1 class="condensed mt-8 text-[34px] leading-tight font-bold">What are you shooting?</h1>
  <p class="mt-1 mb-5 max-w-xl text-pretty text-soft">
    Pick one. You get an aperture, whose eye to focus on and where to stand. You can change all of it afterwards.
  </p>
  <TemplateChoice onchoose={onbegin} />
  <div class="mt-8 flex flex-wrap items-center gap-x-4 gap-y-2 border-t border-line pt-4">
    <Button color="alternative" onclick={onlook}>Explore a sample wedding</Button>
    <span class="text-soft">Thirteen made-up setups with people, places and times.</span>
  </div>
</main>
