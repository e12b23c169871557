<script lang="ts">
  import { limits, type Intent, type Setup } from '$core/setup/schema';
  import LengthField from '$lib/controls/LengthField.svelte';
  import NumberField from '$lib/controls/NumberField.svelte';
  import TextField from '$lib/controls/TextField.svelte';
  import Picker from '$lib/controls/Picker.svelte';
  import { formatLength } from '$core/words/length';
  import { getWorkspace } from '$lib/state/workspace.svelte';
  import { styleChoices } from './words';

  const workspace = getWorkspace();
  const intent = $derived(workspace.setup.intent);
  const viewing = $derived(intent.viewing);

  const seen = (longEdgeMm: number, distanceMm: number, acuity: 'traditional' | 'arcMinute' = 'traditional') =>
    ({ kind: 'seen', longEdgeMm, distanceMm, acuity }) as const;

  const presets: readonly { value: string; name: string; viewing: Intent['viewing'] }[] = [
    { value: 'traditional', name: 'a print, the usual standard', viewing: { kind: 'traditional' } },
    { value: 'album', name: 'an album, 30 cm at 40 cm', viewing: seen(300, 400) },
    { value: 'wall', name: 'a wall print, 60 cm at 1 m', viewing: seen(600, 1000) },
    { value: 'phone', name: 'a phone, 14 cm at 30 cm', viewing: seen(140, 300) },
    { value: 'screen', name: 'a big screen, 60 cm at 60 cm', viewing: seen(600, 600) },
    { value: 'sharpEye', name: 'a print under a sharp eye', viewing: seen(300, 300, 'arcMinute') },
    { value: 'pixels', name: 'pixels at 100 %', viewing: { kind: 'pixels', pixels: 2 } }
  ];
  const current = $derived(presets.find((item) => JSON.stringify(item.viewing) === JSON.stringify(viewing)));
  const items = $derived([
    ...presets.map(({ value, name }) => ({ value, name })),
    ...(current ? [] : [{ value: 'own', name: 'own figures' }])
  ]);

  const targets = $derived([
    { value: 'best', name: 'the best eye' },
    ...workspace.setup.people.flatMap((person) => [
      { value: `leftEye ${person.id}`, name: `${person.name}’s left eye` },
      { value: `rightEye ${person.id}`, name: `${person.name}’s right eye` }
    ]),
    ...workspace.setup.things.map((thing) => ({ value: `thing ${thing.id}`, name: thing.name })),
    ...(intent.target.kind === 'distance'
      ? [{ value: 'distance', name: formatLength(intent.target.distanceMm, workspace.unit) }]
      : [])
  ]);
  const target = $derived.by(() => {
    const chosen = intent.target;
    if (chosen.kind === 'eye') return `${chosen.eye} ${chosen.personId}`;
    if (chosen.kind === 'thing') return `thing ${chosen.thingId}`;
    return chosen.kind;
  });

  function edit(label: string, recipe: (draft: Setup['intent']) => void, gesture: string | null = null) {
    return workspace.edit(label, (draft) => recipe(draft.intent), gesture);
  }
  function aim(value: string) {
    const [kind, id = ''] = value.split(' ');
    edit('Focus target', (draft) => {
      if (kind === 'leftEye' || kind === 'rightEye') draft.target = { kind: 'eye', personId: id, eye: kind };
      else if (kind === 'thing') draft.target = { kind, thingId: id };
      else if (kind === 'best') draft.target = { kind };
    });
  }
  function view(value: string) {
    const preset = presets.find((item) => item.value === value);
    if (preset) edit('Viewing', (draft) => void (draft.viewing = preset.viewing));
  }
</script>

<div class="grid grid-cols-1 gap-x-3 gap-y-2 sm:grid-cols-2">
  <TextField
    label="Name of this setup"
    value={workspace.setup.name}
    whileTyping
    onchange={(name, gesture) => workspace.edit('Setup name', (draft) => void (draft.name = name), gesture)}
  />
  <TextField
    label="Notes, for the field card"
    value={workspace.setup.notes}
    maxlength={limits.maxNotesLength}
    whileTyping
    optional
    onchange={(notes, gesture) => workspace.edit('Notes', (draft) => void (draft.notes = notes), gesture)}
  />
  <Picker label="It will be looked at as" {items} value={current?.value ?? 'own'} onchange={view} />
  <Picker
    label="Aperture"
    items={styleChoices}
    value={intent.style}
    onchange={(value) => edit('Style', (draft) => void (draft.style = value))}
  />
  {#if viewing.kind === 'seen'}
    <div class="grid grid-cols-2 gap-2">
      <LengthField
        label="Its long edge"
        valueMm={viewing.longEdgeMm}
        stepMm={10}
        onchange={(longEdgeMm, gesture) =>
          edit('Viewing', (draft) => void (draft.viewing = { ...viewing, longEdgeMm }), gesture)}
      />
      <LengthField
        label="Seen from"
        valueMm={viewing.distanceMm}
        onchange={(distanceMm, gesture) =>
          edit('Viewing', (draft) => void (draft.viewing = { ...viewing, distanceMm }), gesture)}
      />
    </div>
  {:else if viewing.kind === 'pixels'}
    <NumberField
      label="Blur allowed, pixels"
      value={viewing.pixels}
      min={0.5}
      max={50}
      step={0.5}
      onchange={(pixels, gesture) =>
        edit('Viewing', (draft) => void (draft.viewing = { kind: 'pixels', pixels }), gesture)}
    />
  {/if}
  <Picker label="Focus on" items={targets} value={target} onchange={aim} />
  <NumberField
    label="Odds wanted for one frame"
    unit="%"
    value={Math.round(intent.oddsWanted * 1000) / 10}
    min={5}
    max={99.9}
    onchange={(percent, gesture) => edit('Odds wanted', (draft) => void (draft.oddsWanted = percent / 100), gesture)}
  />
</div>
{#if workspace.plan}
  <p class="label mt-3">
    Blur allowed on the sensor: {(workspace.plan.permissibleDiscMm * 1000).toFixed(1)} µm across.
  </p>
{/if}
