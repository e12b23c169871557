<script lang="ts">
  import { Button } from 'flowbite-svelte';
  import type { Camera } from '$core/setup/schema';
  import { aimAtPeople } from '$core/setup/aim';
  import Choice from '$lib/controls/Choice.svelte';
  import LengthField from '$lib/controls/LengthField.svelte';
  import NumberField from '$lib/controls/NumberField.svelte';
  import Picker from '$lib/controls/Picker.svelte';
  import { getWorkspace } from '$lib/state/workspace.svelte';
  import { focusChoices, stanceChoices } from './words';

  const workspace = getWorkspace();
  const camera = $derived(workspace.setup.camera);

  function edit(label: string, recipe: (draft: Camera) => void, gesture: string | null = null) {
    return workspace.edit(label, (draft) => recipe(draft.camera), gesture);
  }
  function aim() {
    const { view } = workspace;
    if (view) edit('Aimed at the people', (draft) => void Object.assign(draft, aimAtPeople(workspace.setup, view)));
  }
</script>

<div class="grid grid-cols-2 items-end gap-x-2 gap-y-2 sm:grid-cols-4">
  <LengthField
    label="Lens above the floor"
    valueMm={camera.heightMm}
    onchange={(mm, gesture) => edit('Camera height', (draft) => void (draft.heightMm = mm), gesture)}
  />
  <NumberField
    label="Tilted up"
    unit="°"
    value={camera.pitchDeg}
    min={-80}
    max={80}
    onchange={(deg, gesture) => edit('Tilt', (draft) => void (draft.pitchDeg = deg), gesture)}
  />
  <NumberField
    label="Turned right"
    unit="°"
    value={camera.yawDeg}
    min={-80}
    max={80}
    onchange={(deg, gesture) => edit('Turn', (draft) => void (draft.yawDeg = deg), gesture)}
  />
  <Button color="alternative" onclick={aim}>Aim at the people</Button>
  <LengthField
    label="Room to back up"
    valueMm={workspace.setup.place.backUpMm}
    placeholder="no wall"
    onclear={() => workspace.edit('Room', (draft) => void (draft.place.backUpMm = null))}
    onchange={(mm, gesture) => workspace.edit('Room', (draft) => void (draft.place.backUpMm = mm), gesture)}
  />
  <Picker
    label="You are"
    items={stanceChoices}
    value={camera.stance}
    onchange={(value) => edit('Stance', (draft) => void (draft.stance = value))}
  />
  <div class="col-span-2">
    <Picker
      label="Focus with"
      items={focusChoices}
      value={camera.focusMethod}
      onchange={(value) => edit('Focus method', (draft) => void (draft.focusMethod = value))}
    />
  </div>
  <NumberField
    label="Focus to shutter"
    unit="s"
    value={camera.secondsToShutter}
    min={0}
    max={60}
    step={0.5}
    onchange={(seconds, gesture) =>
      edit('Time to shutter', (draft) => void (draft.secondsToShutter = seconds), gesture)}
  />
  <div class="col-span-3">
    <Choice
      legend="Surface of sharp focus"
      value={camera.focusSurface}
      options={[
        { value: 'flat', name: 'flat' },
        { value: 'curved', name: 'curved' }
      ]}
      onchange={(value) => edit('Surface of focus', (draft) => void (draft.focusSurface = value))}
    />
  </div>
</div>
