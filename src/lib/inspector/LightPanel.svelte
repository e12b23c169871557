<script lang="ts">
  import { bounds } from '$core/setup/bounds';
  import { defaultFlash } from '$core/setup/defaults';
  import type { Light } from '$core/setup/schema';
  import { lightLevel } from '$core/call/light';
  import { flashFacts } from '$core/technique/flash';
  import { flashWords } from '$core/words/flash';
  import { formatShutter } from '$core/words/light';
  import Fold from '$lib/controls/Fold.svelte';
  import LengthField from '$lib/controls/LengthField.svelte';
  import NumberField from '$lib/controls/NumberField.svelte';
  import Picker from '$lib/controls/Picker.svelte';
  import type { EditManner } from '$lib/data';
  import Choice from '$lib/controls/Choice.svelte';
  import { getWorkspace } from '$lib/state/screen/workspace.svelte';
  import MeteringPart from './MeteringPart.svelte';
  import { knownLightChoices } from './words';

  const workspace = getWorkspace();
  const light = $derived(workspace.setup.light);
  const level = $derived(light.level);
  const measured = $derived(lightLevel(workspace.setup));
  const value = $derived(level.kind === 'estimated' ? level.as : level.kind);

  function edit(label: string, recipe: (draft: Light) => void, how: EditManner = null) {
    return workspace.edit(label, (draft) => recipe(draft.light), how);
  }
  function choose(to: string) {
    const known = knownLightChoices.find((item) => item.value === to);
    edit('Light', (draft) => {
      if (known) draft.level = { kind: 'estimated', as: known.value };
      else if (to === 'ev') draft.level = { kind: 'ev', ev100: Math.round((measured ?? 8) * 10) / 10 };
      else if (to === 'metered') draft.level = { kind: 'metered', fNumber: 4, shutterS: 1 / 125, iso: 400 };
      else draft.level = { kind: 'unknown' };
    });
  }
  const items = [
    { value: 'unknown', name: 'not set' },
    ...knownLightChoices,
    { value: 'ev', name: 'as an exposure value' },
    { value: 'metered', name: 'as I metered it' }
  ];
  const flashChoices: { value: NonNullable<Light['flash']>['use']; name: string }[] = [
    { value: 'main', name: 'key light' },
    { value: 'keepRoom', name: 'key light, keep the ambient' },
    { value: 'fill', name: 'fill' }
  ];
  const floors = [
    { key: 'peopleS', label: 'People posed, 1/' },
    { key: 'restlessS', label: 'Talking, 1/' },
    { key: 'groupS', label: 'Groups, 1/' },
    { key: 'childS', label: 'Children and pets, 1/' },
    { key: 'movingS', label: 'Walking, 1/' },
    { key: 'livelyS', label: 'Dancing, 1/' }
  ] as const;
  const facts = $derived(
    workspace.body && workspace.entry ? flashFacts(workspace.setup, workspace.body, workspace.entry) : null
  );
  const per = (seconds: number) => Math.round(1 / seconds);
</script>

<div class="space-y-2.5">
  <div class="grid grid-cols-2 items-start gap-x-2 gap-y-2 sm:grid-cols-4">
    <div class="col-span-2"><Picker label="Light" {items} {value} onchange={choose} /></div>
    {#if level.kind === 'ev'}
      <NumberField
        label="EV at ISO 100"
        value={level.ev100}
        min={-10}
        max={20}
        step={0.5}
        onchange={(ev100, how) => edit('Light', (draft) => void (draft.level = { kind: 'ev', ev100 }), how)}
      />
    {:else if level.kind === 'metered'}
      <NumberField
        label="Metered f/"
        value={level.fNumber}
        min={0.5}
        max={128}
        step={0.1}
        onchange={(fNumber, how) => edit('Light', (draft) => void (draft.level = { ...level, fNumber }), how)}
      />
      <NumberField
        label="Shutter, 1/"
        unit="oneOverSeconds"
        value={per(level.shutterS)}
        min={1}
        max={32000}
        onchange={(one, how) => edit('Light', (draft) => void (draft.level = { ...level, shutterS: 1 / one }), how)}
      />
      <NumberField
        label="ISO"
        value={level.iso}
        min={6}
        max={1000000}
        step={100}
        onchange={(iso, how) => edit('Light', (draft) => void (draft.level = { ...level, iso }), how)}
      />
    {/if}
    <Picker
      label="Direction"
      items={[
        { value: 'front', name: 'front' },
        { value: 'side', name: 'side' },
        { value: 'behind', name: 'behind' }
      ]}
      value={light.from}
      onchange={(from) => edit('Direction of the light', (draft) => void (draft.from = from))}
    />
    <NumberField
      label="ND filter, stops"
      value={light.filterStops}
      min={0}
      max={20}
      step={1}
      onchange={(stops, how) => edit('Filter', (draft) => void (draft.filterStops = stops), how)}
    />
  </div>
  <div class="flex flex-wrap items-end gap-x-3 gap-y-2">
    <Choice
      legend="Shutter"
      value={light.shutterS === null ? 'rules' : 'own'}
      options={[
        { value: 'rules', name: 'automatic' },
        { value: 'own', name: 'set by hand' }
      ]}
      onchange={(to) =>
        edit(
          'Shutter',
          (draft) => void (draft.shutterS = to === 'own' ? (workspace.entry?.light.shutterS ?? 1 / 125) : null)
        )}
    />
    {#if light.shutterS !== null}
      <NumberField
        label="Shutter, 1/"
        unit="oneOverSeconds"
        value={per(light.shutterS)}
        min={1}
        max={32000}
        onchange={(one, how) => edit('Shutter', (draft) => void (draft.shutterS = 1 / one), how)}
      />
    {/if}
    <Choice
      legend="Flash"
      value={light.flash ? 'on' : 'off'}
      options={[
        { value: 'off', name: 'off' },
        { value: 'on', name: 'on' }
      ]}
      onchange={(to) =>
        edit(
          'Flash',
          (draft) =>
            void (draft.flash =
              to === 'on' ? { ...defaultFlash, distanceMm: Math.round(workspace.distanceMm) || 2000 } : null)
        )}
    />
  </div>
  {#if light.flash}
    {@const { flash } = light}
    <div class="grid grid-cols-2 items-start gap-x-2 gap-y-2 sm:grid-cols-4">
      <NumberField
        label="Guide number, m"
        value={flash.guideNumberM}
        min={1}
        max={500}
        onchange={(guideNumberM, how) => edit('Flash', (draft) => void (draft.flash = { ...flash, guideNumberM }), how)}
      />
      <LengthField
        label="Flash to subject"
        bounds={bounds.flashMm}
        valueMm={flash.distanceMm}
        stepMm={100}
        onchange={(distanceMm, how) => edit('Flash', (draft) => void (draft.flash = { ...flash, distanceMm }), how)}
      />
      <NumberField
        label="Minimum power, 1/"
        value={per(flash.leastPower)}
        min={4}
        max={4096}
        step={32}
        onchange={(one, how) => edit('Flash', (draft) => void (draft.flash = { ...flash, leastPower: 1 / one }), how)}
      />
      <div class="col-span-2">
        <Picker
          label="Flash as"
          items={flashChoices}
          value={flash.use}
          onchange={(use) => edit('Flash', (draft) => void (draft.flash = { ...flash, use }))}
        />
      </div>
      {#if flash.use !== 'main'}
        <NumberField
          label={flash.use === 'fill' ? 'Flash under the light by, stops' : 'Ambient below flash, stops'}
          value={flash.underStops}
          min={0}
          max={6}
          step={0.5}
          onchange={(underStops, how) => edit('Flash', (draft) => void (draft.flash = { ...flash, underStops }), how)}
        />
      {/if}
    </div>
  {/if}
  <MeteringPart />
  {#if facts}
    {#each flashWords(facts, workspace.unit) as line (line)}<p class="text-pretty">{line}</p>{/each}
  {/if}
  {#if light.flash && workspace.setup.people.some((person) => person.being === 'baby')}
    <p class="font-medium">Hard flash stays away from an infant’s eyes: bounce it, or use the light that is there.</p>
  {/if}
  <Fold
    title="Shutter rules"
    note={workspace.entry ? `the strictest that applies sets ${formatShutter(workspace.entry.light.floorS)}` : ''}
  >
    <div class="mb-2 grid grid-cols-2 items-start gap-x-2 gap-y-2 sm:grid-cols-4">
      <Picker
        label="Slowest hand-held"
        items={[
          { value: '1', name: '1/focal length' },
          { value: '2', name: '1/(2 × focal length)' }
        ]}
        value={String(light.floors.perFocalLength)}
        onchange={(to) => edit('Shutter rule', (draft) => void (draft.floors.perFocalLength = to === '2' ? 2 : 1))}
      />
      {#each floors as floor (floor.key)}
        <NumberField
          label={floor.label}
          unit="oneOverSeconds"
          value={per(light.floors[floor.key])}
          min={1}
          max={8000}
          step={5}
          onchange={(one, how) => edit('Shutter rule', (draft) => void (draft.floors[floor.key] = 1 / one), how)}
        />
      {/each}
    </div>
    <p class="label">Common practice. Change them to yours.</p>
  </Fold>
</div>
