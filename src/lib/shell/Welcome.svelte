<script lang="ts">
  import { Button } from 'flowbite-svelte';
  import { Aperture, Camera } from '@lucide/svelte';
  import type { Setup } from '$core/setup/schema';
  import OnceOpen from '$lib/controls/OnceOpen.svelte';
  import type { TemplateChoices } from '$core/setup/templates';
  import TemplateChoice from './TemplateChoice.svelte';

  /** The first visit: one question, and one press to a call. */
  interface Props {
    onbegin: (choices: TemplateChoices) => unknown;
    onphoto: (setup: Setup) => unknown;
    onlook: () => unknown;
  }
  let { onbegin, onphoto, onlook }: Props = $props();
  let fromPhoto = $state(false);
</script>

<main class="mx-auto w-full max-w-3xl px-4 pt-10 pb-12">
  <p class="flex items-center gap-1.5 text-[17px] font-bold tracking-tight">
    <Aperture size={19} aria-hidden="true" />Focalis
  </p>
  <h1 class="condensed mt-8 text-[34px] leading-tight font-bold">What are you shooting?</h1>
  <p class="mt-1 mb-5 max-w-xl text-pretty text-soft">
    Pick one, or start from a photo. You get an aperture, whose eye to focus on and where to stand. You can change all
    of it afterwards.
  </p>
  <div class="mb-5 flex flex-wrap items-center gap-x-4 gap-y-1">
    <Button color="alternative" onclick={() => (fromPhoto = true)}
      ><Camera size={16} aria-hidden="true" class="mr-2" />Start from a photo</Button
    >
    <span class="text-soft">They stand there already? A test frame tells how far away everyone is.</span>
  </div>
  <TemplateChoice onchoose={onbegin} />
  <div class="mt-8 flex flex-wrap items-center gap-x-4 gap-y-2 border-t border-line pt-4">
    <Button color="alternative" onclick={onlook}>Explore a sample wedding</Button>
    <span class="text-soft">Thirteen made-up setups with people, places and times.</span>
  </div>
</main>
<OnceOpen open={fromPhoto}>
  {#await import('$lib/fromPhoto/PhotoDialog.svelte') then { default: PhotoDialog }}
    <PhotoDialog bind:open={fromPhoto} onmade={onphoto} />
  {/await}
</OnceOpen>
