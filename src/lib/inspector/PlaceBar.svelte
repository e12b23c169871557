<script lang="ts">
  import { Button } from 'flowbite-svelte';
  import Picker from '$lib/controls/Picker.svelte';
  import TextField from '$lib/controls/TextField.svelte';
  import type { PlacePart } from '$lib/state/job/places';
  import { getWorkspace } from '$lib/state/screen/workspace.svelte';

  /** Where the setup is taken: what it shares with others there, and what is its own. */
  const workspace = getWorkspace();
  const { places, open } = workspace.app;
  const id = $derived(workspace.row.id);
  const place = $derived(places.of(id));
  const own = $derived(places.ownParts(id));
  const others = $derived(place ? places.uses(place.id) - 1 : 0);
  const partWords: Readonly<Record<PlacePart, string>> = {
    scenery: 'surroundings',
    room: 'room',
    backgrounds: 'background',
    light: 'light'
  };
  const ownWords = $derived(own.map((part) => partWords[part]).join(', '));

  function choose(value: string) {
    if (value === 'new') places.add(id);
    else if (value !== place?.id) places.use(id, value);
  }
</script>

{#if place}
  <div class="flex flex-wrap items-end gap-x-2 gap-y-1.5 border-b border-line pb-3">
    <div class="w-44">
      <Picker
        label="Place"
        items={[
          ...open.places.map((item) => ({ value: item.id, name: item.name })),
          { value: 'new', name: 'a new place, copied from here' }
        ]}
        value={place.id}
        onchange={choose}
      />
    </div>
    <div class="w-36">
      {#key place.id}
        <TextField
          label="Name"
          value={place.name}
          onchange={(name, how) => (how === null ? places.rename(place.id, name) : true)}
        />
      {/key}
    </div>
    {#if own.length > 0}
      <div class="flex w-full items-center gap-2">
        <p class="label min-w-0 flex-1 text-pretty">Changed for this setup only: {ownWords}.</p>
        <Button color="alternative" onclick={() => places.follow(id)}>Match the place</Button>
        {#if others > 0}
          <Button color="alternative" onclick={() => places.share(id)}>Apply to the whole place</Button>
        {/if}
      </div>
    {/if}
  </div>
{/if}
