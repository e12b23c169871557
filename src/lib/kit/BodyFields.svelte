<script lang="ts">
  import { mountsOf } from '$core/kit/fits';
  import { limits } from '$core/schema/values';
  import type { Body } from '$core/kit/schema';
  import { megapixels, pixelsWide, sensorSizes } from '$core/kit/startingPoints';
  import NumberField from '$lib/controls/NumberField.svelte';
  import Picker from '$lib/controls/Picker.svelte';
  import TextField from '$lib/controls/TextField.svelte';
  import { getApp } from '$lib/state/app.svelte';
  import type { ChangeBody } from './changeBody';
  import CropModes from './CropModes.svelte';
  import FocusPointFields from './FocusPointFields.svelte';
  import More from './More.svelte';
  import { kindChoices, sensorSizeOf, type SensorFormat } from './words';

  let { body }: { body: Body } = $props();
  const { kit } = getApp();
  const change: ChangeBody = (label, recipe, how = null) => kit.change('bodies', body.id, label, recipe, how);
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
</script>

<div class="mt-3 grid grid-cols-2 items-start gap-x-3 gap-y-2">
  <Picker
    label="Kind"
    items={kindChoices}
    value={body.kind}
    onchange={(kind) => change('kind', (draft) => void (draft.kind = kind))}
  />
  <TextField
    label="Mount (empty: fits any lens)"
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
<More source="Typical values. Change what you know; your body’s manual has them.">
  <FocusPointFields {body} {change} />
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
    label="Shutter lag"
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
    label="Fastest shutter speed, 1/"
    unit="oneOverSeconds"
    value={1 / body.fastestShutterS}
    min={1}
    max={1_000_000}
    onchange={(over, how) => change('shortest time', (draft) => void (draft.fastestShutterS = 1 / over), how)}
  />
  <NumberField
    label="Flash sync speed, 1/"
    unit="oneOverSeconds"
    value={1 / body.syncS}
    min={1}
    max={10_000}
    onchange={(over, how) => change('flash sync', (draft) => void (draft.syncS = 1 / over), how)}
  />
  <CropModes {body} {change} />
</More>
