<script lang="ts">
  import { bounds } from '$core/setup/bounds';
  import { Button } from 'flowbite-svelte';
  import { aimAtPeople } from '$core/setup/aim';
  import { aimAtGroup } from '$core/setup/groupFraming';
  import LengthField from '$lib/controls/LengthField.svelte';
  import NumberField from '$lib/controls/NumberField.svelte';
  import Picker from '$lib/controls/Picker.svelte';
  import CameraAdvanced from './CameraAdvanced.svelte';
  import HoldField from './HoldField.svelte';
  import { getWorkspace } from '$lib/state/screen/workspace.svelte';
  import { type Wall } from '$lib/state/screen/selection.svelte';
  import { pointSizes } from '$core/kit/schema';
  import { isByHand } from '$core/call/scatter';
  import { areaChoices, focusChoices, modeChoices, pointSizeChoices, recomposeChoices, stanceChoices } from './words';

  const workspace = getWorkspace();
  const camera = $derived(workspace.setup.camera);

  const edit: typeof workspace.editCamera = (...how) => workspace.editCamera(...how);
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
  /** Sizes the body has, and the one that is set. */
  const sizes = $derived(
    pointSizeChoices.filter(
      ({ value }) => value === camera.pointSize || (workspace.body?.focusGrid.sizes ?? pointSizes).includes(value)
    )
  );
  const rooms: readonly { key: Wall; label: string }[] = [
    { key: 'backUpMm', label: 'Space behind you' },
    { key: 'behindMm', label: 'Space behind subjects' },
    { key: 'sideMm', label: 'Room to the side' }
  ];
</script>

<div class="space-y-3">
  <section aria-label="Position">
    <div class="grid grid-cols-2 items-start gap-x-2 gap-y-2 sm:grid-cols-4">
      <LengthField
        label="Lens height"
        bounds={bounds.cameraHeightMm}
        valueMm={camera.heightMm}
        onchange={(mm, how) => edit('Camera height', (draft) => void (draft.heightMm = mm), how)}
      />
      <NumberField
        label="Tilt, up"
        unit="deg"
        value={camera.pitchDeg}
        min={-80}
        max={80}
        onchange={(deg, how) => edit('Tilt', (draft) => void (draft.pitchDeg = deg), how)}
      />
      <NumberField
        label="Turn, right"
        unit="deg"
        value={camera.yawDeg}
        min={-80}
        max={80}
        onchange={(deg, how) => edit('Turn', (draft) => void (draft.yawDeg = deg), how)}
      />
      <Button color="alternative" class="beside-field" onclick={aim}>Aim at people</Button>
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
    </div>
  </section>
  <section aria-label="Focus" class="border-t border-line pt-2">
    <div class="grid grid-cols-2 items-start gap-x-2 gap-y-2 sm:grid-cols-4">
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
      {/if}
      <Picker
        label="Focus mode"
        items={modeChoices}
        value={camera.focusMode}
        onchange={(value) => edit('Focus mode', (draft) => void (draft.focusMode = value))}
      />
      <div class="col-span-2">
        <Picker
          label="Move point or recompose"
          items={recomposeChoices}
          value={camera.recompose}
          onchange={(value) => edit('Recomposing', (draft) => void (draft.recompose = value))}
        />
      </div>
      <HoldField />
    </div>
  </section>
  <CameraAdvanced />
</div>
