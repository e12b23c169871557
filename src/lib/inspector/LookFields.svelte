<script lang="ts">
  import { Checkbox } from 'flowbite-svelte';
  import {
    hairColours,
    hairstyles,
    headwears,
    outfitColours,
    outfits,
    seats,
    skinTones,
    type Appearance
  } from '$core/people/appearance';
  import type { Person } from '$core/setup/schema';
  import Fold from '$lib/controls/Fold.svelte';
  import Picker from '$lib/controls/Picker.svelte';
  import { getWorkspace } from '$lib/state/screen/workspace.svelte';

  /** How somebody looks: drawn so in the Finder, and seen so by autofocus and the exposure meter. */
  let { person }: { person: Person } = $props();
  const workspace = getWorkspace();
  const named = <T extends string>(values: readonly T[]) => values.map((value) => ({ value, name: value }));
  const tones = Array.from({ length: skinTones }, (_, index) => ({
    value: String(index + 1),
    name: ['very light', 'light', 'tan', 'brown', 'dark', 'very dark'][index] ?? ''
  }));

  function look(changes: Partial<Appearance>) {
    workspace.editPerson(person.id, 'Look', (draft) => void Object.assign(draft.look, changes));
  }
</script>

<Fold title="Appearance">
  <div class="mt-1.5 grid grid-cols-2 items-start gap-2 sm:grid-cols-4">
    <Picker label="Clothes" items={named(outfits)} value={person.look.outfit} onchange={(outfit) => look({ outfit })} />
    <Picker
      label="Clothing colour"
      items={named(outfitColours)}
      value={person.look.outfitColour}
      onchange={(outfitColour) => look({ outfitColour })}
    />
    <Picker label="Hair" items={named(hairstyles)} value={person.look.hair} onchange={(hair) => look({ hair })} />
    <Picker
      label="Hair colour"
      items={named(hairColours)}
      value={person.look.hairColour}
      onchange={(hairColour) => look({ hairColour })}
    />
    <Picker
      label="Skin"
      items={tones}
      value={String(person.look.skin)}
      onchange={(value) => look({ skin: Number(value) })}
    />
    {#if person.posture === 'seated'}
      <Picker label="Sits on" items={named(seats)} value={person.look.seat} onchange={(seat) => look({ seat })} />
    {/if}
    <Picker
      label="Headwear"
      items={headwears.map((value) => ({
        value,
        name: { none: 'nothing', hat: 'a hat with a brim', veil: 'a veil' }[value]
      }))}
      value={person.look.headwear}
      onchange={(headwear) => look({ headwear })}
    />
    <div class="flex h-8 items-center">
      <Checkbox checked={person.look.glasses} onchange={() => look({ glasses: !person.look.glasses })}>Glasses</Checkbox
      >
    </div>
  </div>
</Fold>
