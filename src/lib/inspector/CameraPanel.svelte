<script lang="ts">
  import { adaptersBetween } from '$core/kit/cameraKit';
  import { factorOf } from '$core/kit/mounted';
  import { mountingOf, waysOn } from '$core/kit/fits';
  import { takeLens } from '$core/setup/moves';
  import { bounds } from '$core/setup/bounds';
  import { Button } from 'flowbite-svelte';
  import type { Camera } from '$core/setup/schema';
  import { aimAtPeople } from '$core/setup/aim';
  import { aimAtGroup } from '$core/setup/groupFraming';
  import type { EditManner } from '$lib/data';
  import Choice from '$lib/controls/Choice.svelte';
  import LengthField from '$lib/controls/LengthField.svelte';
  import NumberField from '$lib/controls/NumberField.svelte';
  import Picker from '$lib/controls/Picker.svelte';
  import HoldField from './HoldField.svelte';
  import { getWorkspace } from '$lib/state/screen/workspace.svelte';
  import { type Wall } from '$lib/state/screen/selection.svelte';
  import { pointSizes } from '$core/kit/schema';
  import { isByHand } from '$core/call/scatter';
  import { areaChoices, focusChoices, modeChoices, pointSizeChoices, recomposeChoices, stanceChoices } from './words';

  const workspace = getWorkspace();
  const camera = $derived(workspace.setup.camera);

  function edit(label: string, recipe: (draft: Camera) => void, how: EditManner = null) {
    return workspace.edit(label, (draft) => recipe(draft.camera), how);
  }
  function aim() {
    const { view } = workspace;
    if (!view) return;
    const { people } = workspace.setup;
    const { placement } = camera;
    const to =
      placement.kind === 'group'
        ? aimAtGroup(people, camera, placement.framing, view.distance)
        : aimAtPeople(workspace.setup, view);
    edit('Aimed at the people', (draft) => void Object.assign(draft, to));
  }
  const kit = $derived(workspace.question.kit);
  const modes = $derived(workspace.body?.cropModes ?? []);
  /** Sizes the body has, and the one that is set. */
  const sizes = $derived(
    pointSizeChoices.filter(
      ({ value }) => value === camera.pointSize || (workspace.body?.focusGrid.sizes ?? pointSizes).includes(value)
    )
  );
  /** What may be between lens and body, by name. */
  const ways = $derived.by(() => {
    const { body } = workspace;
    const lens = kit.lenses.find((item) => item.id === camera.lensId);
    if (!body || !lens) return [];
    return waysOn(body, lens, kit.adapters).map((between) => ({
      ...mountingOf(lens, between),
      name: between.length === 0 ? 'nothing' : between.map((item) => item.name).join(' + ')
    }));
  });
  function putBetween(ids: string) {
    const way = ways.find((item) => item.adapterIds.join(' ') === ids);
    const now = adaptersBetween(kit, camera) ?? [];
    if (!way) return;
    edit(`Between lens and body: ${way.name}`, (draft) => {
      // The zoom ring stays where it is.
      draft.focalLengthMm *= way.seen.shortestMm / way.lens.shortestMm / factorOf(now);
      takeLens(draft, way);
    });
  }
  const rooms: readonly { key: Wall; label: string }[] = [
    { key: 'backUpMm', label: 'Space behind you' },
    { key: 'behindMm', label: 'Space behind subjects' },
    { key: 'sideMm', label: 'Room to the side' }
  ];
</script>

<div class="grid grid-cols-2 items-start gap-x-2 gap-y-2 sm:grid-cols-4">
  {#if ways.length > 1}
    <Picker
      label="Adapter or converter"
      items={ways.map(({ adapterIds, name }) => ({ value: adapterIds.join(' '), name }))}
      value={camera.adapterIds.join(' ')}
      onchange={putBetween}
    />
  {/if}
  {#if modes.length > 0}
    <Picker
      label="Crop mode"
      items={[{ value: '', name: 'all of it' }, ...modes.map(({ name }) => ({ value: name, name }))]}
      value={camera.cropMode ?? ''}
      onchange={(name) => edit('Crop mode', (draft) => void (draft.cropMode = name === '' ? null : name))}
    />
  {/if}
  <LengthField
    label="Lens above the floor"
    bounds={bounds.cameraHeightMm}
    valueMm={camera.heightMm}
    onchange={(mm, how) => edit('Camera height', (draft) => void (draft.heightMm = mm), how)}
  />
  <NumberField
    label="Tilted up"
    unit="deg"
    value={camera.pitchDeg}
    min={-80}
    max={80}
    onchange={(deg, how) => edit('Tilt', (draft) => void (draft.pitchDeg = deg), how)}
  />
  <NumberField
    label="Turned right"
    unit="deg"
    value={camera.yawDeg}
    min={-80}
    max={80}
    onchange={(deg, how) => edit('Turn', (draft) => void (draft.yawDeg = deg), how)}
  />
  <Button color="alternative" class="beside-field" onclick={aim}>Aim at the people</Button>
  {#each rooms as room (room.key)}
    <LengthField
      label={room.label}
      bounds={bounds.room[room.key]}
      valueMm={workspace.setup.place[room.key]}
      placeholder="no wall"
      stepMm={100}
      onclear={(how) => workspace.edit('Room', (draft) => void (draft.place[room.key] = null), how)}
      onchange={(mm, how) => workspace.edit('Room', (draft) => void (draft.place[room.key] = mm), how)}
    />
  {/each}
  <Picker
    label="Stance"
    items={stanceChoices}
    value={camera.stance}
    onchange={(value) => edit('Stance', (draft) => void (draft.stance = value))}
  />
  <div class="col-span-2">
    <Picker
      label="Focus method"
      items={focusChoices}
      value={camera.focusMethod}
      onchange={(value) => edit('Focus method', (draft) => void (draft.focusMethod = value))}
    />
  </div>
  {#if !isByHand(camera.focusMethod)}
    <div class="col-span-2">
      <Picker
        label="AF area"
        items={areaChoices}
        value={camera.focusArea}
        onchange={(value) => edit('AF area', (draft) => void (draft.focusArea = value))}
      />
    </div>
    <Picker
      label="AF point size"
      items={sizes}
      value={camera.pointSize}
      onchange={(value) => edit('Point size', (draft) => void (draft.pointSize = value))}
    />
    {#if workspace.body?.focusGrid.fine}
      <Choice
        legend="AF point grid"
        value={camera.fineGrid ? 'fine' : 'coarse'}
        options={[
          { value: 'coarse', name: 'coarse' },
          { value: 'fine', name: 'fine' }
        ]}
        onchange={(value) => edit('AF point grid', (draft) => void (draft.fineGrid = value === 'fine'))}
      />
    {/if}
  {/if}
  <HoldField />
  <div class="col-span-2">
    <Picker
      label="Move point or recompose"
      items={recomposeChoices}
      value={camera.recompose}
      onchange={(value) => edit('Recomposing', (draft) => void (draft.recompose = value))}
    />
  </div>
  <Picker
    label="Focus mode"
    items={modeChoices}
    value={camera.focusMode}
    onchange={(value) => edit('Focus mode', (draft) => void (draft.focusMode = value))}
  />
  <Choice
    legend="Field curvature"
    value={camera.focusSurface}
    options={[
      { value: 'flat', name: 'flat' },
      { value: 'curved', name: 'curved' },
      ...(workspace.lens?.fieldPerM !== undefined || camera.focusSurface === 'measured'
        ? [{ value: 'measured' as const, name: 'as measured' }]
        : [])
    ]}
    onchange={(value) => edit('Field curvature', (draft) => void (draft.focusSurface = value))}
  />
  <Choice
    legend="Focus stack"
    value={workspace.setup.intent.frames}
    options={[
      { value: 'one', name: 'one' },
      { value: 'two', name: 'two' }
    ]}
    onchange={(frames) => workspace.edit('Frames', (draft) => void (draft.intent.frames = frames))}
  />
  <div class="col-span-2 flex items-end gap-2 sm:col-span-3">
    <Choice
      legend="Stitched panorama"
      value={camera.stitch ? 'on' : 'off'}
      options={[
        { value: 'off', name: 'off' },
        { value: 'on', name: 'on' }
      ]}
      onchange={(value) =>
        edit(
          'Stitching',
          (draft) => void (draft.stitch = value === 'on' ? { columns: 3, rows: 3, overlap: 0.35 } : null)
        )}
    />
    {#if camera.stitch}
      {@const { stitch } = camera}
      {#each [{ key: 'columns', label: 'Across', least: 1, most: 20, step: 1 }, { key: 'rows', label: 'Up', least: 1, most: 20, step: 1 }, { key: 'overlap', label: 'Overlap', least: 0.05, most: 0.9, step: 0.05 }] as const as part (part.key)}
        <div class="w-18">
          <NumberField
            label={part.label}
            value={stitch[part.key]}
            min={part.least}
            max={part.most}
            step={part.step}
            whole={part.step === 1}
            onchange={(value, how) =>
              edit('Stitching', (draft) => void (draft.stitch && (draft.stitch[part.key] = value)), how)}
          />
        </div>
      {/each}
    {/if}
  </div>
</div>
