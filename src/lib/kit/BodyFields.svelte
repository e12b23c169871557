<script lang="ts">
  import { Plus, X } from '@lucide/svelte';
  import { Button, Checkbox } from 'flowbite-svelte';
  import type { Draft } from 'immer';
  import { mountsOf } from '$core/kit/fits';
  import { limits } from '$core/schema/values';
  import { pointSizes, type Body } from '$core/kit/schema';
  import { megapixels, pixelsWide, sensorSizes } from '$core/kit/startingPoints';
  import NumberField from '$lib/controls/NumberField.svelte';
  import Picker from '$lib/controls/Picker.svelte';
  import TextField from '$lib/controls/TextField.svelte';
  import type { EditManner } from '$lib/data';
  import { getApp } from '$lib/state/app.svelte';
  import More from './More.svelte';
  import { kindChoices, sensitiveChoices, sensorSizeOf, sizeNames, type SensorFormat } from './words';

  let { body }: { body: Body } = $props();
  const { kit } = getApp();
  const change = (label: string, recipe: (draft: Draft<Body>) => void, how: EditManner = null) =>
    kit.change('bodies', body.id, label, recipe, how);
  const size = $derived(sensorSizeOf(body.sensor));
  const mounts = $derived(mountsOf(kit.all));
  const sizes: readonly { value: SensorFormat; name: string }[] = [
    ...(Object.keys(sensorSizes) as (keyof typeof sensorSizes)[]).map((value) => ({ value, name: value })),
    { value: 'own', name: 'another size' }
  ];
  /** A usual spread to begin with, µm (from memory). */
  const usualSpreadUm = 10;

  function resize(to: SensorFormat) {
    if (to === 'own') return;
    const mp = megapixels(body.sensor);
    change('sensor', (draft) => {
      draft.sensor = { ...sensorSizes[to], pixelsWide: pixelsWide(mp, sensorSizes[to]) };
    });
  }
  const share = (value: number) => Math.round(value * 1000) / 10;
</script>

<div class="mt-3 grid grid-cols-2 items-start gap-x-3 gap-y-2">
  <Picker
    label="Kind"
    items={kindChoices}
    value={body.kind}
    onchange={(kind) => change('kind', (draft) => void (draft.kind = kind))}
  />
  <TextField
    label="Mount (empty: takes any lens)"
    value={body.mount}
    maxlength={limits.maxMountLength}
    optional
    suggestions={mounts}
    onchange={(mount, how) => change('mount', (draft) => void (draft.mount = mount), how)}
  />
  <Picker label="Sensor" items={sizes} value={size} onchange={resize} />
  <NumberField
    label="Megapixels"
    value={Math.round(megapixels(body.sensor) * 10) / 10}
    min={0.1}
    max={500}
    onchange={(mp, how) =>
      change('pixels', (draft) => void (draft.sensor.pixelsWide = pixelsWide(mp, draft.sensor)), how)}
  />
  <NumberField
    label="Long edge"
    unit="millimetres"
    value={body.sensor.widthMm}
    min={1}
    max={120}
    step={0.1}
    onchange={(mm, how) => change('long edge', (draft) => void (draft.sensor.widthMm = mm), how)}
  />
  <NumberField
    label="Short edge"
    unit="millimetres"
    value={body.sensor.heightMm}
    min={1}
    max={120}
    step={0.1}
    onchange={(mm, how) => change('short edge', (draft) => void (draft.sensor.heightMm = mm), how)}
  />
  <NumberField
    label="Highest ISO you accept"
    value={body.isoLimit}
    min={50}
    max={1_000_000}
    whole
    step={100}
    onchange={(iso, how) => change('highest ISO', (draft) => void (draft.isoLimit = iso), how)}
  />
  <NumberField
    label="Stabiliser, stops (0: none)"
    value={body.stabiliserStops}
    min={0}
    max={10}
    step={0.5}
    onchange={(stops, how) => change('stabiliser', (draft) => void (draft.stabiliserStops = stops), how)}
  />
  <NumberField
    label="Frames per second"
    value={body.framesPerSecond}
    min={0.2}
    max={240}
    onchange={(fps, how) => change('frames per second', (draft) => void (draft.framesPerSecond = fps), how)}
  />
</div>
<More
  source="What is filled in is usual for such a body: from memory or common practice, no source. The manual has your body’s."
>
  <NumberField
    label="Columns of focus points"
    value={body.focusGrid.columns}
    min={1}
    max={99}
    whole
    onchange={(n, how) => change('columns of points', (draft) => void (draft.focusGrid.columns = n), how)}
  />
  <NumberField
    label="Rows of focus points"
    value={body.focusGrid.rows}
    min={1}
    max={99}
    whole
    onchange={(n, how) => change('rows of points', (draft) => void (draft.focusGrid.rows = n), how)}
  />
  <NumberField
    label="They cover, of the long edge"
    unit="percent"
    value={share(body.focusGrid.widthShare)}
    min={1}
    max={100}
    onchange={(percent, how) =>
      change('points across', (draft) => void (draft.focusGrid.widthShare = percent / 100), how)}
  />
  <NumberField
    label="They cover, of the short edge"
    unit="percent"
    value={share(body.focusGrid.heightShare)}
    min={1}
    max={100}
    onchange={(percent, how) =>
      change('points down', (draft) => void (draft.focusGrid.heightShare = percent / 100), how)}
  />
  <Checkbox
    classes={{ div: 'col-span-2 text-[13px]' }}
    checked={body.focusGrid.fine !== null}
    onchange={(event: Event) => {
      const fine = (event.currentTarget as HTMLInputElement).checked;
      change('fine points', (draft) => {
        const { columns, rows } = draft.focusGrid;
        draft.focusGrid.fine = fine
          ? { columns: Math.min(99, columns * 2 - 1), rows: Math.min(99, rows * 2 - 1) }
          : null;
      });
    }}>A finer grid can be chosen</Checkbox
  >
  {#if body.focusGrid.fine}
    <NumberField
      label="Fine columns"
      value={body.focusGrid.fine.columns}
      min={1}
      max={99}
      whole
      onchange={(n, how) =>
        change('fine columns', (draft) => void (draft.focusGrid.fine && (draft.focusGrid.fine.columns = n)), how)}
    />
    <NumberField
      label="Fine rows"
      value={body.focusGrid.fine.rows}
      min={1}
      max={99}
      whole
      onchange={(n, how) =>
        change('fine rows', (draft) => void (draft.focusGrid.fine && (draft.focusGrid.fine.rows = n)), how)}
    />
  {/if}
  <Picker
    label="Sensitive both ways"
    items={sensitiveChoices}
    value={body.focusGrid.sensitive}
    onchange={(value) => change('sensitive points', (draft) => void (draft.focusGrid.sensitive = value))}
  />
  <Checkbox
    checked={body.focusGrid.anywhere}
    onchange={(event: Event) => {
      const anywhere = (event.currentTarget as HTMLInputElement).checked;
      change('points anywhere', (draft) => void (draft.focusGrid.anywhere = anywhere));
    }}>The point can be put anywhere between them</Checkbox
  >
  <fieldset>
    <legend class="label mb-0.5">Sizes of the point</legend>
    <div class="flex flex-wrap gap-x-2">
      {#each pointSizes as value (value)}
        <Checkbox
          checked={body.focusGrid.sizes.includes(value)}
          onchange={(event: Event) => {
            const on = (event.currentTarget as HTMLInputElement).checked;
            change('sizes of the point', (draft) => {
              draft.focusGrid.sizes = pointSizes.filter((item) =>
                item === value ? on : draft.focusGrid.sizes.includes(item)
              );
            });
          }}>{sizeNames[value]}</Checkbox
        >
      {/each}
    </div>
  </fieldset>
  <Picker
    label="Autofocus lands"
    items={[
      { value: 'habits', name: 'as your habits say' },
      { value: 'own', name: 'with a spread of its own' }
    ]}
    value={body.focusSpreadUm === null ? 'habits' : 'own'}
    onchange={(value) =>
      change('autofocus', (draft) => void (draft.focusSpreadUm = value === 'own' ? usualSpreadUm : null))}
  />
  {#if body.focusSpreadUm !== null}
    <NumberField
      label="Spread behind the lens, µm"
      value={body.focusSpreadUm}
      min={0.5}
      max={200}
      onchange={(um, how) => change('autofocus spread', (draft) => void (draft.focusSpreadUm = um), how)}
    />
  {/if}
  <NumberField
    label="Autofocus down to, EV"
    value={body.focusLimitEv}
    min={-12}
    max={12}
    step={0.5}
    onchange={(ev, how) => change('autofocus in the dark', (draft) => void (draft.focusLimitEv = ev), how)}
  />
  <NumberField
    label="Release lag"
    unit="seconds"
    value={body.releaseLagS}
    min={0}
    max={2}
    step={0.01}
    onchange={(s, how) => change('release lag', (draft) => void (draft.releaseLagS = s), how)}
  />
  <NumberField
    label="Base ISO"
    value={body.baseIso}
    min={6}
    max={6400}
    whole
    onchange={(iso, how) => change('base ISO', (draft) => void (draft.baseIso = iso), how)}
  />
  <NumberField
    label="Shortest shutter time, 1/"
    unit="oneOverSeconds"
    value={1 / body.fastestShutterS}
    min={1}
    max={1_000_000}
    onchange={(over, how) => change('shortest time', (draft) => void (draft.fastestShutterS = 1 / over), how)}
  />
  <NumberField
    label="Flash in time down to, 1/"
    unit="oneOverSeconds"
    value={1 / body.syncS}
    min={1}
    max={10_000}
    onchange={(over, how) => change('flash sync', (draft) => void (draft.syncS = 1 / over), how)}
  />
  <div class="col-span-2">
    <p class="label mb-0.5">Crop modes</p>
    {#each body.cropModes as mode, index (index)}
      <div class="mb-1 flex items-end gap-2">
        <div class="min-w-0 flex-1">
          <TextField
            label="Crop mode {index + 1}"
            value={mode.name}
            onchange={(name, how) =>
              change(
                'crop mode',
                (draft) => void (draft.cropModes[index] && (draft.cropModes[index].name = name)),
                how
              )}
          />
        </div>
        <div class="w-24">
          <NumberField
            label="Factor {index + 1}"
            value={mode.factor}
            min={1.01}
            max={4}
            step={0.1}
            onchange={(factor, how) =>
              change(
                'crop factor',
                (draft) => void (draft.cropModes[index] && (draft.cropModes[index].factor = factor)),
                how
              )}
          />
        </div>
        <button
          type="button"
          class="grid size-8 place-items-center border border-line bg-raised"
          aria-label="Remove crop mode {mode.name}"
          onclick={() => change('crop mode removed', (draft) => void draft.cropModes.splice(index, 1))}
        >
          <X size={15} aria-hidden="true" />
        </button>
      </div>
    {/each}
    {#if body.cropModes.length < 4}
      <Button
        size="xs"
        color="alternative"
        onclick={() =>
          change(
            'crop mode',
            (draft) => void draft.cropModes.push({ name: `Crop ${draft.cropModes.length + 1}`, factor: 1.5 })
          )}><Plus size={13} class="mr-1" aria-hidden="true" />Crop mode</Button
      >
    {/if}
  </div>
</More>
