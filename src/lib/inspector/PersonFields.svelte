<script lang="ts">
  import { bounds } from '$core/setup/bounds';
  import { become } from '$core/setup/persons';
  import type { Person } from '$core/setup/schema';
  import LengthField from '$lib/controls/LengthField.svelte';
  import NumberField from '$lib/controls/NumberField.svelte';
  import Picker from '$lib/controls/Picker.svelte';
  import type { EditManner } from '$lib/data';
  import { getWorkspace } from '$lib/state/screen/workspace.svelte';
  import { importanceChoices, moodChoices, sharpChoices } from './words';

  interface Props {
    person: Person;
    /** Changes this person; false when that is refused. */
    edit: (label: string, recipe: (draft: Person) => void, how?: EditManner) => boolean;
  }
  /** Where someone stands, what of them has to be sharp, how they are turned, what they are. */
  let { person, edit }: Props = $props();
  const workspace = getWorkspace();
</script>

<LengthField
  label="Distance from lens"
  bounds={bounds.fromLensMm}
  valueMm={person.depthMm + workspace.distanceMm}
  onchange={(mm, how) => edit('Distance from lens', (draft) => void (draft.depthMm = mm - workspace.distanceMm), how)}
/>
<LengthField
  label="Offset, right"
  bounds={bounds.lateralMm}
  valueMm={person.lateralMm}
  onchange={(mm, how) => edit('Offset', (draft) => void (draft.lateralMm = mm), how)}
/>
<Picker
  label="Age and posture"
  value={`${person.being}-${person.posture}`}
  items={[
    { value: 'adult-standing', name: 'adult, standing' },
    { value: 'adult-seated', name: 'adult, seated' },
    { value: 'adult-embracing', name: 'adult, embracing' },
    { value: 'child-standing', name: 'child, standing' },
    { value: 'child-seated', name: 'child, seated' },
    { value: 'baby-embracing', name: 'baby, held' },
    { value: 'pet-standing', name: 'pet, standing' },
    { value: 'pet-seated', name: 'pet, on a lap' }
  ]}
  onchange={(value) =>
    edit('Who it is', (draft) => {
      const [being, posture] = value.split('-') as [typeof draft.being, typeof draft.posture];
      become(
        draft,
        being,
        posture,
        workspace.app.open.people.map((item) => item.name)
      );
    })}
/>
<Picker
  label="Sharp"
  items={sharpChoices}
  value={person.sharp}
  onchange={(sharp) => edit('Sharp', (draft) => void (draft.sharp = sharp), null)}
/>
<Picker
  label="Priority"
  items={importanceChoices}
  value={person.importance}
  onchange={(importance) => edit('Importance', (draft) => void (draft.importance = importance), null)}
/>
<NumberField
  label="Head turn"
  unit="deg"
  value={person.headYawDeg}
  min={-180}
  max={180}
  step={5}
  onchange={(deg, how) => edit('Head turn', (draft) => void (draft.headYawDeg = deg), how)}
/>
<NumberField
  label="Head tilt, up"
  unit="deg"
  value={person.headPitchDeg}
  min={-80}
  max={80}
  step={5}
  onchange={(deg, how) => edit('Head tilt', (draft) => void (draft.headPitchDeg = deg), how)}
/>
<LengthField
  label="Height"
  bounds={bounds.statureMm}
  valueMm={person.statureMm}
  stepMm={10}
  onchange={(mm, how) => edit('Height', (draft) => void (draft.statureMm = mm), how)}
/>
<NumberField
  label="Shoulder turn"
  unit="deg"
  value={person.bodyYawDeg}
  min={-180}
  max={180}
  step={5}
  onchange={(deg, how) => edit('Shoulders', (draft) => void (draft.bodyYawDeg = deg), how)}
/>
<Picker
  label="Movement"
  items={moodChoices}
  value={person.mood}
  onchange={(mood) => edit('Mood', (draft) => void (draft.mood = mood), null)}
/>
{#if person.being === 'pet'}
  <LengthField
    label="Muzzle"
    bounds={bounds.muzzleMm}
    valueMm={person.muzzleMm}
    stepMm={5}
    onchange={(mm, how) => edit('Muzzle', (draft) => void (draft.muzzleMm = mm), how)}
  />
{/if}
