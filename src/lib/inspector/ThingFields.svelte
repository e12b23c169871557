<script lang="ts">
  import { bounds } from '$core/setup/bounds';
  import type { Thing } from '$core/setup/schema';
  import Picker from '$lib/controls/Picker.svelte';
  import { formChoices } from './words';
  import type { EditManner } from '$lib/data';
  import LengthField from '$lib/controls/LengthField.svelte';
  import { getWorkspace } from '$lib/state/screen/workspace.svelte';

  let { thing }: { thing: Thing } = $props();
  const workspace = getWorkspace();

  function edit(label: string, recipe: (draft: Thing) => void, how: EditManner) {
    return workspace.editThing(thing.id, label, recipe, how);
  }
</script>

<LengthField
  label="Distance from lens"
  bounds={bounds.fromLensMm}
  valueMm={thing.depthMm + workspace.distanceMm}
  onchange={(mm, how) => edit('Distance from lens', (draft) => void (draft.depthMm = mm - workspace.distanceMm), how)}
/>
<LengthField
  label="Offset, right"
  bounds={bounds.lateralMm}
  valueMm={thing.lateralMm}
  onchange={(mm, how) => edit('Offset', (draft) => void (draft.lateralMm = mm), how)}
/>
<LengthField
  label="Above the floor"
  bounds={bounds.thingHeightMm}
  valueMm={thing.heightMm}
  onchange={(mm, how) => edit('Height', (draft) => void (draft.heightMm = mm), how)}
/>
<LengthField
  label="Width"
  bounds={bounds.thingSizeMm}
  valueMm={thing.widthMm}
  stepMm={10}
  onchange={(mm, how) => edit('Width', (draft) => void (draft.widthMm = mm), how)}
/>
<LengthField
  label="Height"
  bounds={bounds.thingSizeMm}
  valueMm={thing.tallMm}
  stepMm={10}
  onchange={(mm, how) => edit('Size', (draft) => void (draft.tallMm = mm), how)}
/>
<LengthField
  label="Depth"
  bounds={bounds.thingSizeMm}
  valueMm={thing.deepMm}
  stepMm={10}
  onchange={(mm, how) => edit('Depth', (draft) => void (draft.deepMm = mm), how)}
/>
<Picker
  label="Support"
  items={[
    { value: 'held', name: 'in a hand' },
    { value: 'resting', name: 'resting on something' }
  ]}
  value={thing.held ? 'held' : 'resting'}
  onchange={(to) => edit('Held', (draft) => void (draft.held = to === 'held'), null)}
/>
<Picker
  label="Drawn as"
  items={formChoices}
  value={thing.form}
  onchange={(form) => edit('Form', (draft) => void (draft.form = form), null)}
/>
