<script lang="ts">
  import type { Thing } from '$core/setup/schema';
  import Picker from '$lib/controls/Picker.svelte';
  import { formChoices } from './words';
  import LengthField from '$lib/controls/LengthField.svelte';
  import { getWorkspace } from '$lib/state/workspace.svelte';

  let { thing }: { thing: Thing } = $props();
  const workspace = getWorkspace();

  function edit(label: string, recipe: (draft: Thing) => void, gesture: string | null) {
    return workspace.editThing(thing.id, label, recipe, gesture && `${gesture}-${thing.id}`);
  }
</script>

<LengthField
  label="From the lens"
  valueMm={thing.depthMm + workspace.distanceMm}
  onchange={(mm, gesture) => edit('Distance', (draft) => void (draft.depthMm = mm - workspace.distanceMm), gesture)}
/>
<LengthField
  label="To the right"
  valueMm={thing.lateralMm}
  onchange={(mm, gesture) => edit('Offset', (draft) => void (draft.lateralMm = mm), gesture)}
/>
<LengthField
  label="Above the floor"
  valueMm={thing.heightMm}
  onchange={(mm, gesture) => edit('Height', (draft) => void (draft.heightMm = mm), gesture)}
/>
<LengthField
  label="Wide"
  valueMm={thing.widthMm}
  stepMm={10}
  onchange={(mm, gesture) => edit('Width', (draft) => void (draft.widthMm = mm), gesture)}
/>
<LengthField
  label="Tall"
  valueMm={thing.tallMm}
  stepMm={10}
  onchange={(mm, gesture) => edit('Size', (draft) => void (draft.tallMm = mm), gesture)}
/>
<LengthField
  label="Deep"
  valueMm={thing.deepMm}
  stepMm={10}
  onchange={(mm, gesture) => edit('Depth', (draft) => void (draft.deepMm = mm), gesture)}
/>
<Picker
  label="Drawn as"
  items={formChoices}
  value={thing.form}
  onchange={(form) => edit('Form', (draft) => void (draft.form = form), null)}
/>
