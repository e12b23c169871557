<script lang="ts">
  import { bounds } from '$core/setup/bounds';
  import { Button } from 'flowbite-svelte';
  import { Plus, Trash2 } from '@lucide/svelte';
  import { newBackground } from '$core/setup/defaults';
  import { usualFor } from '$core/setup/intents';
  import { isPlainName, surfaceName } from '$core/setup/names';
  import type { Background } from '$core/setup/schema';
  import type { EditManner } from '$lib/data';
  import Choice from '$lib/controls/Choice.svelte';
  import FieldScope from '$lib/controls/FieldScope.svelte';
  import LengthField from '$lib/controls/LengthField.svelte';
  import TextField from '$lib/controls/TextField.svelte';
  import { getWorkspace } from '$lib/state/screen/workspace.svelte';
  import PlaceBar from './PlaceBar.svelte';
  import { sceneryChoices, surfaceChoices, wishChoices } from './words';
  import Picker from '$lib/controls/Picker.svelte';

  const workspace = getWorkspace();
  const backgrounds = $derived(workspace.setup.backgrounds);

  function edit(item: Background, label: string, recipe: (draft: Background) => void, how: EditManner = null) {
    return workspace.editBackground(item.id, label, recipe, how);
  }
  function add() {
    const newId = workspace.app.newId();
    const added = newBackground(newId, '', { wish: usualFor[workspace.setup.intent.picture].wish });
    const names = backgrounds.map((item) => item.name);
    const name = surfaceName(added.surface, names);
    workspace.edit(`${name} added`, (draft) => void draft.backgrounds.push({ ...added, name }));
    workspace.selection.select({ kind: 'background', id: newId });
  }
  function remove(item: Background) {
    workspace.remove(`${item.name} removed`, (draft) => {
      draft.backgrounds = draft.backgrounds.filter((other) => other.id !== item.id);
    });
  }
</script>

<div class="space-y-3">
  <PlaceBar />
  {#each backgrounds as item (item.id)}
    <FieldScope of="{workspace.row.id}/{item.id}">
      <div
        class="grid grid-cols-2 items-start gap-x-2 gap-y-1.5 border-b border-line pb-3 sm:grid-cols-[1.3fr_1fr_1fr_1fr_auto]"
        role="group"
        aria-label={item.name}
      >
        <TextField
          label="Name"
          value={item.name}
          onchange={(name, how) => edit(item, 'Name', (draft) => void (draft.name = name), how)}
        />
        <LengthField
          name="Distance"
          label={item.depthMm < 0 ? 'In front of subject' : 'Behind the subject'}
          bounds={bounds.backgroundDepthMm}
          valueMm={item.depthMm}
          stepMm={100}
          onchange={(mm, how) => edit(item, 'Distance', (draft) => void (draft.depthMm = mm), how)}
        />
        <LengthField
          label="Offset, right"
          bounds={bounds.lateralMm}
          valueMm={item.lateralMm}
          stepMm={100}
          onchange={(mm, how) => edit(item, 'Offset', (draft) => void (draft.lateralMm = mm), how)}
        />
        <LengthField
          label="Detail size"
          bounds={bounds.detailMm}
          valueMm={item.detailMm}
          stepMm={5}
          onchange={(mm, how) => edit(item, 'Detail', (draft) => void (draft.detailMm = mm), how)}
        />
        <Button
          color="alternative"
          class="beside-field px-2"
          onclick={() => remove(item)}
          aria-label="Remove {item.name}"
        >
          <Trash2 size={15} aria-hidden="true" />
        </Button>
        <div class="col-span-full flex flex-wrap items-end gap-3">
          <Choice
            legend="Goal for {item.name}"
            hideLegend
            options={wishChoices}
            value={item.wish}
            onchange={(value) => edit(item, 'Wish', (draft) => void (draft.wish = value))}
          />
          <div class="w-40">
            <Picker
              label="{item.name}, surface"
              hideLabel
              items={surfaceChoices}
              value={item.surface}
              onchange={(surface) =>
                edit(item, 'Drawn as', (draft) => {
                  const taken = backgrounds.filter((other) => other.id !== item.id).map((other) => other.name);
                  if (isPlainName(draft.name)) draft.name = surfaceName(surface, taken);
                  draft.surface = surface;
                })}
            />
          </div>
        </div>
      </div>
    </FieldScope>
  {/each}
  <div class="flex items-center gap-3">
    <Button color="alternative" onclick={add}><Plus size={14} aria-hidden="true" class="mr-1" />Background</Button>
    <div class="w-44">
      <Picker
        label="Scenery"
        hideLabel
        items={sceneryChoices}
        value={workspace.setup.place.scenery}
        onchange={(scenery) => workspace.edit('Scenery', (draft) => void (draft.place.scenery = scenery))}
      />
    </div>
    <p class="label">Detail: the leaf, brick or face that must vanish or stay. A minus sign puts it in front.</p>
  </div>
</div>
