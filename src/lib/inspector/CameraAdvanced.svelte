<script lang="ts">
  import { adaptersBetween } from '$core/kit/cameraKit';
  import { mountingOf, waysOn } from '$core/kit/fits';
  import { factorOf } from '$core/kit/mounted';
  import { isByHand } from '$core/call/scatter';
  import { takeLens } from '$core/setup/moves';
  import Choice from '$lib/controls/Choice.svelte';
  import Fold from '$lib/controls/Fold.svelte';
  import NumberField from '$lib/controls/NumberField.svelte';
  import Picker from '$lib/controls/Picker.svelte';
  import { getWorkspace } from '$lib/state/screen/workspace.svelte';

  /** What few setups change of the camera: adapters, crops, curvature, stacks and stitched views. */
  const workspace = getWorkspace();
  const camera = $derived(workspace.setup.camera);

  const edit: typeof workspace.editCamera = (...how) => workspace.editCamera(...how);
  const kit = $derived(workspace.question.kit);
  const modes = $derived(workspace.body?.cropModes ?? []);
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
  /** What is not as usual among what is folded away. */
  const advanced = $derived(
    [
      camera.adapterIds.length > 0
        ? (ways.find(({ adapterIds }) => adapterIds.join() === camera.adapterIds.join())?.name ?? 'adapter')
        : null,
      camera.cropMode,
      camera.focusSurface === 'flat' ? null : 'field curvature',
      workspace.setup.intent.frames === 'two' ? 'two frames' : null,
      camera.stitch ? 'stitched' : null
    ]
      .filter((part) => part !== null)
      .join(', ')
  );
</script>

<Fold title="Advanced" note={advanced}>
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
    {#if !isByHand(camera.focusMethod)}
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
      {/if}{/if}
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
</Fold>
