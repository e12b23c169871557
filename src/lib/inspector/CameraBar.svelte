<script lang="ts">
  import { bounds } from '$core/setup/bounds';
  import { Ruler } from '@lucide/svelte';
  import { onBody } from '$core/setup/chooseKit';
  import { goTogether } from '$core/kit/find';
  import { mountingsFor } from '$core/kit/fits';
  import { framings, type Framing } from '$core/setup/schema';
  import { frameGroup, usualMarginShare } from '$core/setup/frameGroup';
  import type { EditManner } from '$lib/data';
  import Choice from '$lib/controls/Choice.svelte';
  import LengthField from '$lib/controls/LengthField.svelte';
  import NumberField from '$lib/controls/NumberField.svelte';
  import Picker from '$lib/controls/Picker.svelte';
  import OnceOpen from '$lib/controls/OnceOpen.svelte';
  import { getWorkspace } from '$lib/state/screen/workspace.svelte';
  import { framingWords } from './words';

  const workspace = getWorkspace();
  const camera = $derived(workspace.setup.camera);
  const kit = $derived(workspace.question.kit);
  const lens = $derived(workspace.lens);
  let measuring = $state(false);
  const named = <T extends { id: string; name: string }>(items: readonly T[]) =>
    items.map((item) => ({ value: item.id, name: item.name }));

  const zooms = $derived(!!lens && lens.longestMm > lens.shortestMm);
  /** The fields that come with a zoom and with a framed group take their room from the others. */
  const columns = $derived(
    `${zooms ? '0.8fr 1.75fr' : '1fr 1.1fr'} ${camera.placement.kind === 'group' ? '1.7fr' : zooms ? '1.05fr' : '1.25fr'} 0.95fr auto`
  );

  type FramingChoice = Framing | `group-${Framing}` | 'byDistance';
  const framing = $derived.by((): FramingChoice => {
    const { placement } = camera;
    if (placement.kind === 'framing') return placement.framing;
    return placement.kind === 'group' ? `group-${placement.framing}` : 'byDistance';
  });
  const framingItems = $derived([
    ...framings.map((value) => ({ value: value as FramingChoice, name: framingWords[value] })),
    ...framings.map((value) => ({
      value: `group-${value}` as FramingChoice,
      name: `everyone, ${framingWords[value]}`
    })),
    { value: 'byDistance' as FramingChoice, name: 'set distance' }
  ]);

  /** Lenses that go on the body, each by the way that changes least; the one in use as it is used. */
  const offered = $derived(workspace.body ? mountingsFor(kit, workspace.body, camera) : []);
  const lensItems = $derived(
    kit.lenses.flatMap(({ id }) => {
      const found = offered.find((item) => item.lens.id === id);
      return found ? [{ value: id, name: found.seen.name }] : [];
    })
  );
  function useBody(id: string) {
    workspace.edit('Body', (draft) => {
      Object.assign(draft.camera, onBody(draft.camera, kit, id));
    });
  }
  function useLens(id: string) {
    const chosen = offered.find((item) => item.lens.id === id);
    if (chosen) workspace.useLens(chosen);
  }
  function frame(choice: FramingChoice) {
    const whole = framings.find((item) => choice === `group-${item}`);
    const single = framings.find((item) => choice === item);
    if (whole) everybody(whole, camera.placement.kind === 'group' ? camera.placement.marginShare : usualMarginShare);
    else if (single)
      workspace.edit('Framing', (draft) => void (draft.camera.placement = { kind: 'framing', framing: single }));
    else workspace.stand(Math.round(workspace.distanceMm));
  }
  function everybody(whole: Framing, marginShare: number, how: EditManner = null) {
    const { body, setup } = workspace;
    if (!body) return;
    const changes = frameGroup(setup, body, whole, marginShare, workspace.lens?.pupilMagnification);
    workspace.edit('Framing', (draft) => void Object.assign(draft.camera, changes), how);
  }
</script>

<div
  class="grid grid-cols-2 items-start gap-x-2 gap-y-1.5 sm:grid-cols-(--columns)"
  style:--columns={columns}
  role="group"
  aria-label="Camera and framing"
>
  <Picker label="Body" items={named(kit.bodies)} value={camera.bodyId} onchange={useBody} />
  <div class="flex items-end gap-1.5">
    <div class="min-w-0 flex-1">
      <Picker label="Lens" items={lensItems} value={camera.lensId} onchange={useLens} />
    </div>
    {#if lens && zooms}
      <div class="w-13">
        <NumberField
          label="Zoom"
          unit="millimetres"
          value={camera.focalLengthMm}
          min={lens.shortestMm}
          max={lens.longestMm}
          onchange={(mm, how) => workspace.edit('Focal length', (draft) => void (draft.camera.focalLengthMm = mm), how)}
        />
      </div>
    {/if}
  </div>
  <div class="flex items-end gap-1.5">
    <div class="min-w-0 flex-1"><Picker label="Framing" items={framingItems} value={framing} onchange={frame} /></div>
    {#if camera.placement.kind === 'group'}
      {@const { placement } = camera}
      <div class="w-16">
        <NumberField
          label="Margin"
          unit="percent"
          value={Math.round(placement.marginShare * 100)}
          min={0}
          max={40}
          onchange={(percent, how) => everybody(placement.framing, percent / 100, how)}
        />
      </div>
    {/if}
  </div>
  <div class="flex items-end gap-1">
    <div class="min-w-0 flex-1">
      <LengthField
        label="Distance"
        bounds={bounds.fromLensMm}
        valueMm={workspace.distanceMm}
        stepMm={100}
        onchange={(mm, how) => workspace.stand(mm, how)}
      />
    </div>
    <button
      type="button"
      class="grid size-8 shrink-0 place-items-center border border-line bg-raised"
      aria-label="Measure with the rangefinder"
      title="Measure with the rangefinder"
      onclick={() => (measuring = true)}
    >
      <Ruler size={15} aria-hidden="true" />
    </button>
  </div>
  <Choice
    legend="Orientation"
    value={camera.orientation}
    options={[
      { value: 'landscape', name: 'wide' },
      { value: 'portrait', name: 'tall' }
    ]}
    onchange={(value) => workspace.edit('Orientation', (draft) => void (draft.camera.orientation = value))}
  />
</div>
{#if !goTogether(kit, camera)}
  <p role="alert" class="mt-1.5 border-l-2 border-pencil pl-2">
    This lens does not go on this body, as it is: choose another, or an adapter (Camera, Kit).
  </p>
{/if}
<OnceOpen open={measuring}>
  {#await import('$lib/inspector/Rangefinder.svelte') then { default: Rangefinder }}
    <Rangefinder bind:open={measuring} />
  {/await}
</OnceOpen>
