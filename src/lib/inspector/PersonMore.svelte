<script lang="ts">
  import { bounds } from '$core/setup/bounds';
  import type { Person } from '$core/setup/schema';
  import { formatLength } from '$core/units/length';
  import type { EditManner } from '$lib/data';
  import Fold from '$lib/controls/Fold.svelte';
  import LengthField from '$lib/controls/LengthField.svelte';
  import NumberField from '$lib/controls/NumberField.svelte';
  import TextField from '$lib/controls/TextField.svelte';
  import { getWorkspace } from '$lib/state/screen/workspace.svelte';

  interface Props {
    person: Person;
    edit: (label: string, recipe: (draft: Person) => void, how?: EditManner) => boolean;
  }
  /** What few people of a setup have: a step, a speed, a role, a sway of their own. */
  let { person, edit }: Props = $props();
  const workspace = getWorkspace();
  const speed = (mmPerS: number, where: string) => (mmPerS === 0 ? null : `${mmPerS / 1000} m/s ${where}`);
  const note = $derived(
    [
      person.floorMm === 0 ? null : `${formatLength(person.floorMm, workspace.unit)} up`,
      speed(person.towardsMmPerS, 'towards you'),
      speed(person.acrossMmPerS, 'sideways'),
      person.role === '' ? null : person.role,
      person.swayMm === null ? null : `sways ${formatLength(person.swayMm, workspace.unit)}`
    ]
      .filter((part) => part !== null)
      .join(', ')
  );
</script>

<Fold title="Step, speed, role, sway" {note}>
  <div class="grid grid-cols-2 items-start gap-x-2 gap-y-2 sm:grid-cols-4">
    <LengthField
      label="Step height"
      bounds={bounds.stepMm}
      valueMm={person.floorMm}
      stepMm={10}
      onchange={(mm, how) => edit('Step', (draft) => void (draft.floorMm = mm), how)}
    />
    <NumberField
      label="Speed towards you"
      unit="metresPerSecond"
      value={person.towardsMmPerS / 1000}
      min={-20}
      max={20}
      step={0.1}
      onchange={(speed, how) => edit('Speed', (draft) => void (draft.towardsMmPerS = Math.round(speed * 1000)), how)}
    />
    <NumberField
      label="Speed sideways"
      unit="metresPerSecond"
      value={person.acrossMmPerS / 1000}
      min={0}
      max={20}
      step={0.1}
      onchange={(speed, how) => edit('Speed', (draft) => void (draft.acrossMmPerS = Math.round(speed * 1000)), how)}
    />
    <TextField
      label="Role"
      value={person.role}
      optional
      onchange={(role, how) => edit('Role', (draft) => void (draft.role = role), how)}
    />
    <LengthField
      label="Sway"
      bounds={bounds.swayMm}
      valueMm={person.swayMm}
      stepMm={1}
      placeholder="as usual"
      onclear={(how) => edit('Sway', (draft) => void (draft.swayMm = null), how)}
      onchange={(mm, how) => edit('Sway', (draft) => void (draft.swayMm = mm), how)}
    />
  </div>
</Fold>
