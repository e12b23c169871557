<script lang="ts">
  import { Checkbox } from 'flowbite-svelte';
  import { getApp } from '$lib/state/app.svelte';

  /** Whether names leave with a file: one choice for every file. */
  let { places = false }: { places?: boolean } = $props();
  const app = getApp();
  const leaving = $derived(app.settings.now.leaving);
</script>

<div class="flex flex-wrap items-center gap-x-5 gap-y-2">
  <Checkbox
    checked={leaving.names}
    onchange={(event) => app.settings.set({ leaving: { ...leaving, names: event.currentTarget.checked } })}
    >with names</Checkbox
  >
  {#if places}
    <Checkbox
      checked={leaving.places}
      onchange={(event) => app.settings.set({ leaving: { ...leaving, places: event.currentTarget.checked } })}
      >with places</Checkbox
    >
  {/if}
</div>
